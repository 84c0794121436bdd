package eagerneedle.app.workbench;

import java.util.Set;

/** How an instrument is reached: by the stand-in of this bench, or at an address. */
public sealed interface Way {
    /** @param faults mistakes made at the bench, such as leads exchanged */
    record Simulated(double pace, Set<String> faults) implements Way {}

    /** Such as {@code 192.168.0.12:5020}, a serial port or a file, by the driver that the sheet names. */
    record At(String address) implements Way {}
}
