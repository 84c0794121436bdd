package eagerneedle.app.window;

import eagerneedle.app.writing.WritingView;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;

/** The line of the sheet that a quantity stands in. */
record LineOf(Key key, Session session) {
    /** Puts the caret there. */
    void in(WritingView desk) {
        if (key instanceof Key.OfRun of) {
            desk.reveal(session.run(of.run()).map(Run::capture).orElse(""), of.name());
        } else if (key instanceof Key.Column c) {
            desk.reveal(c.capture(), c.name());
        } else {
            desk.reveal("", key.toString());
        }
    }
}
