package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.ShotPlan;

/** Waiting for a trigger: what it is, and how far it has come. */
final class ShotModel {
    private final String begins;
    private final String waitsFor;
    private boolean armed;
    private boolean done;

    ShotModel(Desk desk, Capture plan) {
        ShotPlan s = plan.shotPlan();
        String channel = s.on() == null ? plan.channels().get(0) : s.on();
        String on = desk.bench().sheet().channel(channel).label();
        String way = s.way().equals("either") ? "" : s.way().equals("up") ? " upwards" : " downwards";
        waitsFor = s.at() != null ? on + " passes " + s.at() + way : on + " changes" + way + " faster than " + s.rate();
        begins = "Fires when " + waitsFor + "; kept from " + Notation.plain(s.before(), 3) + " s before to "
                + Notation.plain(s.after(), 3) + " s after.";
    }

    /** What it will do, before it is armed. */
    String begins() {
        return begins;
    }

    /**
     * Takes in how the instrument stands; true once the shot is kept whole.
     *
     * @param isArmed the trigger has not come yet
     * @param isDone all that belongs to it has come
     */
    boolean look(boolean isArmed, boolean isDone) {
        armed = isArmed;
        done = isDone;
        return done;
    }

    /** One word for the clock. */
    String word() {
        return armed ? "armed" : "fired";
    }

    String says() {
        return done
                ? "Fired and kept; time 0 is the trigger."
                : armed ? "Armed: waits until " + waitsFor + "." : "Fired; it is being kept.";
    }
}
