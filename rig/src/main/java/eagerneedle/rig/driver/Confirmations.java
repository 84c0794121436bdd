package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/** What an instrument answers to what was asked of it, handed from the thread that reads to the one that asked. */
final class Confirmations {
    private final BlockingQueue<String> come = new LinkedBlockingQueue<>();

    void add(String answer) {
        come.add(answer);
    }

    /** Forgets what was said before the next question. */
    void forget() {
        come.clear();
    }

    /** @throws IOException with one sentence when no answer comes within so many ms */
    String await(String asked, int ms) throws IOException {
        try {
            String answer = come.poll(ms, TimeUnit.MILLISECONDS);
            if (answer == null) {
                throw new IOException("The instrument did not confirm '" + asked + "' within " + ms / 1000
                        + " s; take it as not done.");
            }
            return answer;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("Waiting for the instrument was interrupted.", e);
        }
    }
}
