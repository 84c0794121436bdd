package eagerneedle.store.bench;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The pages of a SQLite database and its write-ahead log, read without SQLite: every table row that lies whole on
 * readable pages, wherever it is, whatever is broken above it.
 *
 * <p>SQLite reaches a row through the pages of a tree, and refuses a file whose head or length is wrong. Here every
 * page that looks like a leaf of a table is taken apart by itself (SQLite database file format, chapters 1.6, 2.1 and
 * 4). What is found may be anything, so whoever asks must know by itself what a row of its own looks like.
 */
final class Pages {
    private static final int LEAF = 0x0D;
    private static final int FRAME_HEAD = 24;
    private static final int LOG_HEAD = 32;

    /**
     * One row as it was found.
     *
     * @param id its row number
     * @param values nulls, Longs, Doubles, Strings and byte arrays
     */
    record Row(long id, List<Object> values) {
        boolean has(int column, Class<?> type) {
            return column < values.size() && type.isInstance(values.get(column));
        }

        String text(int column) {
            return (String) values.get(column);
        }

        long number(int column) {
            return (Long) values.get(column);
        }

        byte[] bytes(int column) {
            return (byte[]) values.get(column);
        }
    }

    private final byte[] file;
    private final int size;
    private final Map<Integer, byte[]> newer = new HashMap<>();

    /** Reads a database and, where there is one, the log beside it. */
    Pages(Path path) throws IOException {
        file = Files.readAllBytes(path);
        Path log = path.resolveSibling(FileName.of(path) + "-wal");
        byte[] wal = Files.isRegularFile(log) ? Files.readAllBytes(log) : new byte[0];
        int stated = file.length >= 18 ? (file[16] & 0xFF) << 8 | file[17] & 0xFF : 0;
        int fromLog = wal.length >= LOG_HEAD ? ByteBuffer.wrap(wal).getInt(8) : 0;
        size = isPageSize(stated) ? stated : stated == 1 ? 65_536 : isPageSize(fromLog) ? fromLog : 4096;
        readLog(wal);
    }

    /** The first hundred bytes of a database as its log leaves them, without reading the rest. */
    static byte[] head(Path path) throws IOException {
        Path log = path.resolveSibling(FileName.of(path) + "-wal");
        if (Files.isRegularFile(log) && Files.size(log) > 0) {
            Pages pages = new Pages(Files.readAllBytes(log));
            if (pages.newer.containsKey(1)) {
                return java.util.Arrays.copyOf(pages.newer.get(1), 100);
            }
        }
        try (var in = Files.newInputStream(path)) {
            return in.readNBytes(100);
        }
    }

    /** The log alone; pages of the file itself are not there. */
    private Pages(byte[] wal) {
        file = new byte[0];
        size = wal.length >= LOG_HEAD && isPageSize(ByteBuffer.wrap(wal).getInt(8))
                ? ByteBuffer.wrap(wal).getInt(8)
                : 4096;
        readLog(wal);
    }

    private static boolean isPageSize(int n) {
        return n >= 512 && n <= 65_536 && Integer.bitCount(n) == 1;
    }

    int count() {
        int most = (file.length + size - 1) / size;
        for (int n : newer.keySet()) {
            most = Math.max(most, n);
        }
        return most;
    }

    /** How many bytes the file is shorter than its own head says; 0 when it is whole or its head cannot be read. */
    long cutOff() {
        int stated = file.length >= 32 ? number(file, 28) : 0;
        long whole = (long) stated * size;
        return stated > 0 && stated < 1 << 24 && newer.isEmpty() ? Math.max(0, whole - file.length) : 0;
    }

    /** Every row of every table leaf, page by page. */
    List<Row> rows() {
        List<Row> out = new ArrayList<>();
        for (int n = 1; n <= count(); n++) {
            byte[] page = page(n);
            if (page != null) {
                leaf(page, n == 1 ? 100 : 0, out);
            }
        }
        return out;
    }

    private byte @Nullable [] page(int n) {
        byte[] fresh = newer.get(n);
        if (fresh != null) {
            return fresh;
        }
        long at = (long) (n - 1) * size;
        if (n < 1 || at + 8 > file.length) {
            return null;
        }
        // The last page of a file that was cut short may still hold whole rows; what is missing reads as zeros.
        byte[] page = new byte[size];
        System.arraycopy(file, (int) at, page, 0, (int) Math.min(size, file.length - at));
        return page;
    }

    /** Whole frames of the log up to its last commit, each checked by the running checksum and the salts. */
    private void readLog(byte[] wal) {
        if (wal.length < LOG_HEAD) {
            return;
        }
        ByteBuffer head = ByteBuffer.wrap(wal);
        int magic = head.getInt(0);
        if (magic != 0x377F0682 && magic != 0x377F0683 || head.getInt(8) != size) {
            return;
        }
        ByteOrder order = magic == 0x377F0683 ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN;
        int[] sum = {0, 0};
        add(sum, wal, 0, 24, order);
        if (sum[0] != head.getInt(24) || sum[1] != head.getInt(28)) {
            return;
        }
        Map<Integer, byte[]> open = new HashMap<>();
        for (int at = LOG_HEAD; at + FRAME_HEAD + size <= wal.length; at += FRAME_HEAD + size) {
            if (head.getInt(at + 8) != head.getInt(16) || head.getInt(at + 12) != head.getInt(20)) {
                return;
            }
            add(sum, wal, at, 8, order);
            add(sum, wal, at + FRAME_HEAD, size, order);
            if (sum[0] != head.getInt(at + 16) || sum[1] != head.getInt(at + 20)) {
                return;
            }
            open.put(head.getInt(at), java.util.Arrays.copyOfRange(wal, at + FRAME_HEAD, at + FRAME_HEAD + size));
            if (head.getInt(at + 4) != 0) {
                newer.putAll(open);
                open.clear();
            }
        }
    }

    private static void add(int[] sum, byte[] bytes, int from, int n, ByteOrder order) {
        ByteBuffer in = ByteBuffer.wrap(bytes, from, n).slice().order(order);
        for (int i = 0; i + 8 <= n; i += 8) {
            sum[0] += in.getInt(i) + sum[1];
            sum[1] += in.getInt(i + 4) + sum[0];
        }
    }

    private void leaf(byte[] page, int head, List<Row> out) {
        if (page[head] != LEAF) {
            return;
        }
        int cells = (page[head + 3] & 0xFF) << 8 | page[head + 4] & 0xFF;
        for (int i = 0; i < cells && head + 10 + 2 * i <= size; i++) {
            int at = (page[head + 8 + 2 * i] & 0xFF) << 8 | page[head + 9 + 2 * i] & 0xFF;
            try {
                out.add(row(page, at));
            } catch (IndexOutOfBoundsException | NegativeArraySizeException | IllegalStateException broken) {
                continue;
            }
        }
    }

    private Row row(byte[] page, int cell) {
        int[] at = {cell};
        long length = varint(page, at);
        long id = varint(page, at);
        if (length < 1 || length > 1L << 30) {
            throw new IllegalStateException("no row");
        }
        byte[] payload = new byte[(int) Math.min(length, file.length + newer.size() * (long) size)];
        if (payload.length < length) {
            throw new IllegalStateException("no row");
        }
        int most = size - 35;
        int least = (size - 12) * 32 / 255 - 23;
        int k = least + (int) ((length - least) % (size - 4));
        int local = length <= most ? (int) length : k <= most ? k : least;
        if (at[0] + local > size) {
            throw new IllegalStateException("no row");
        }
        System.arraycopy(page, at[0], payload, 0, local);
        int filled = local;
        int next = local < length ? number(page, at[0] + local) : 0;
        while (filled < length) {
            byte[] more = page(next);
            if (more == null) {
                throw new IllegalStateException("cut short");
            }
            int part = (int) Math.min(size - 4, length - filled);
            System.arraycopy(more, 4, payload, filled, part);
            filled += part;
            next = number(more, 0);
        }
        return new Row(id, values(payload));
    }

    private static int number(byte[] b, int at) {
        return (b[at] & 0xFF) << 24 | (b[at + 1] & 0xFF) << 16 | (b[at + 2] & 0xFF) << 8 | b[at + 3] & 0xFF;
    }

    private static List<Object> values(byte[] payload) {
        int[] at = {0};
        int head = (int) varint(payload, at);
        int body = head;
        List<Object> out = new ArrayList<>();
        while (at[0] < head) {
            long type = varint(payload, at);
            int length =
                    type >= 12 ? (int) ((type - 12) / 2) : new int[] {0, 1, 2, 3, 4, 6, 8, 8, 0, 0, 0, 0}[(int) type];
            if (body + length > payload.length || out.size() > 40) {
                throw new IllegalStateException("no row");
            }
            ByteBuffer in = ByteBuffer.wrap(payload, body, length);
            Object value;
            if (type >= 12) {
                byte[] bytes = new byte[length];
                in.get(bytes);
                value = type % 2 == 0 ? bytes : new String(bytes, StandardCharsets.UTF_8);
            } else if (type == 0) {
                value = null;
            } else if (type == 7) {
                value = in.getDouble();
            } else if (type == 8 || type == 9) {
                value = type - 8;
            } else {
                long v = length == 0 ? 0 : payload[body];
                for (int i = 1; i < length; i++) {
                    v = v << 8 | payload[body + i] & 0xFF;
                }
                value = v;
            }
            out.add(value);
            body += length;
        }
        return out;
    }

    private static long varint(byte[] b, int[] at) {
        long v = 0;
        for (int i = 0; i < 9; i++) {
            int x = b[at[0]++] & 0xFF;
            if (i == 8) {
                return v << 8 | x;
            }
            v = v << 7 | x & 0x7F;
            if (x < 0x80) {
                break;
            }
        }
        return v;
    }
}
