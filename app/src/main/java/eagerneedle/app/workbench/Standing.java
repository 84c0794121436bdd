package eagerneedle.app.workbench;

import eagerneedle.rig.driver.Driver;

/** What one connected instrument is called, and how it stands. */
public record Standing(String device, String label, Driver.State state, boolean simulated) {}
