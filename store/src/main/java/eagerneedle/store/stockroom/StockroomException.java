package eagerneedle.store.stockroom;

/** The stockroom cannot be read or written; the message is one sentence. */
public final class StockroomException extends RuntimeException {
    private static final long serialVersionUID = 1;

    StockroomException(String message) {
        super(message);
    }

    StockroomException(String message, Throwable cause) {
        super(message, cause);
    }
}
