package eagerneedle.rig.driver;

import eagerneedle.core.sheet.Output;

/** A program that brings an output up by its ramp and holds it, until it is killed. */
final class Ramping {
    private Ramping() {}

    /** @param arguments the serial port */
    public static void main(String[] arguments) throws Exception {
        Output limits = new Output("heater", "V", 0, 10, 6.0, 8.0, 60.0, 0, 0, null);
        LineDriver driver = new LineDriver(new SerialWire(arguments[0], 115200));
        driver.open();
        OutputGuard guard = new OutputGuard(driver, "heater", limits, s -> {});
        guard.set(9);
        System.out.println("begun");
        Thread.sleep(60_000);
    }
}
