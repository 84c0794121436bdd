package eagerneedle.store.bench;

import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import java.nio.ByteBuffer;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;
import java.util.zip.DataFormatException;

/**
 * The raw samples of a bench file: packed blocks, and beside each block its outline (least and greatest value of every
 * {@value Pyramid#BIN} samples), so that a long run can be seen whole without unpacking it.
 */
final class SampleBlocks {
    private static final int PLAIN = 1;
    private static final int PACKED = 2;

    private final Connection connection;

    SampleBlocks(Connection connection) {
        this.connection = connection;
    }

    /** Adds a block; part of whatever transaction is open. */
    void add(int run, String channel, RawSamples samples) throws SQLException {
        try (PreparedStatement s = connection.prepareStatement(
                "INSERT INTO block (run, channel, n, time, value, coding) VALUES (?, ?, ?, ?, ?, ?)",
                PreparedStatement.RETURN_GENERATED_KEYS)) {
            s.setInt(1, run);
            s.setString(2, channel);
            s.setInt(3, samples.size());
            s.setBytes(4, BlockCoding.pack(samples.time()));
            s.setBytes(5, BlockCoding.pack(samples.values()));
            s.setInt(6, PACKED);
            s.executeUpdate();
            try (ResultSet key = s.getGeneratedKeys()) {
                key.next();
                outline(key.getLong(1), run, channel, samples);
            }
        }
    }

    private void outline(long block, int run, String channel, RawSamples samples) throws SQLException {
        Pyramid.Outline bins = Pyramid.bins(samples.time(), samples.values());
        try (PreparedStatement s =
                connection.prepareStatement("INSERT OR REPLACE INTO outline VALUES (?, ?, ?, ?, ?, ?, ?)")) {
            s.setLong(1, block);
            s.setInt(2, run);
            s.setString(3, channel);
            s.setInt(4, samples.size());
            s.setDouble(5, samples.time()[0]);
            s.setDouble(6, samples.time()[samples.size() - 1]);
            s.setBytes(7, bytes(bins));
            s.executeUpdate();
        }
    }

    private static byte[] bytes(Pyramid.Outline bins) {
        ByteBuffer out = ByteBuffer.allocate(16 * bins.size() + 4);
        for (int i = 0; i < bins.size(); i++) {
            out.putDouble(bins.time()[i]).putFloat(bins.low()[i]).putFloat(bins.high()[i]);
        }
        return out.putInt(checksum(out.array(), 16 * bins.size())).array();
    }

    private static int checksum(byte[] bytes, int n) {
        CRC32C crc = new CRC32C();
        crc.update(bytes, 0, n);
        return (int) crc.getValue();
    }

    private static Pyramid.Outline bins(byte[] bytes) throws DataFormatException {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        if (bytes.length < 4
                || bytes.length % 16 != 4
                || in.getInt(bytes.length - 4) != checksum(bytes, bytes.length - 4)) {
            throw new DataFormatException("altered");
        }
        int n = bytes.length / 16;
        double[] time = new double[n];
        float[] low = new float[n];
        float[] high = new float[n];
        for (int i = 0; i < n; i++) {
            time[i] = in.getDouble();
            low[i] = in.getFloat();
            high[i] = in.getFloat();
        }
        return new Pyramid.Outline(time, low, high, Pyramid.BIN);
    }

    /** How many samples of a channel a run holds, by its outlines. */
    long count(int run, String channel) throws SQLException {
        return sum("outline", run, channel);
    }

    private long sum(String table, int run, String channel) throws SQLException {
        try (PreparedStatement s = connection.prepareStatement(
                "SELECT coalesce(sum(n), 0) FROM " + table + " WHERE run = ? AND channel = ?")) {
            s.setInt(1, run);
            s.setString(2, channel);
            try (ResultSet r = s.executeQuery()) {
                return r.next() ? r.getLong(1) : 0;
            }
        }
    }

    /** Blocks without an outline, of a file of format 1 or a rescued one: outlines are made and stored. */
    void outlineAll() throws SQLException, DataFormatException {
        List<Long> missing = new ArrayList<>();
        try (PreparedStatement s = connection.prepareStatement(
                        "SELECT seq FROM block WHERE seq NOT IN (SELECT block FROM outline)");
                ResultSet r = s.executeQuery()) {
            while (r.next()) {
                missing.add(r.getLong(1));
            }
        }
        for (long seq : missing) {
            try (PreparedStatement s =
                    connection.prepareStatement("SELECT run, channel, time, value, coding FROM block WHERE seq = ?")) {
                s.setLong(1, seq);
                try (ResultSet r = s.executeQuery()) {
                    if (r.next()) {
                        RawSamples samples = unpack(r.getBytes(3), r.getBytes(4), r.getInt(5));
                        if (samples.size() > 0) {
                            outline(seq, r.getInt(1), r.getString(2), samples);
                        }
                    }
                }
            }
        }
    }

    static RawSamples unpack(byte[] time, byte[] value, int coding) throws DataFormatException {
        return switch (coding) {
            case PLAIN -> new RawSamples(SampleCoding.unpack(time), SampleCoding.unpack(value));
            case PACKED -> new RawSamples(BlockCoding.unpack(time), BlockCoding.unpack(value));
            default -> throw new DataFormatException("a coding of a newer version");
        };
    }

    /** The outline of everything a run holds of a channel. */
    Pyramid overview(int run, String channel) throws SQLException, DataFormatException {
        Pyramid p = new Pyramid();
        try (PreparedStatement s = connection.prepareStatement(
                "SELECT n, t1, bins FROM outline WHERE run = ? AND channel = ? ORDER BY block")) {
            s.setInt(1, run);
            s.setString(2, channel);
            try (ResultSet r = s.executeQuery()) {
                while (r.next()) {
                    p.add(bins(r.getBytes(3)), r.getInt(1), r.getDouble(2));
                }
            }
        }
        // Blocks and outlines are counted apart, so that a row lost from one of them does not pass unseen.
        if (p.samples() != sum("block", run, channel)) {
            throw new DataFormatException("outlines and blocks differ");
        }
        return p;
    }

    /** The samples of all blocks that hold moments from {@code from} to {@code to}, in s; cut to that span. */
    RawSamples between(int run, String channel, double from, double to) throws SQLException, DataFormatException {
        List<RawSamples> parts = new ArrayList<>();
        try (PreparedStatement s = connection.prepareStatement(
                "SELECT b.time, b.value, b.coding FROM outline o JOIN block b ON b.seq = o.block WHERE o.run = ? "
                        + "AND o.channel = ? AND o.t1 >= ? AND o.t0 <= ? ORDER BY o.block")) {
            s.setInt(1, run);
            s.setString(2, channel);
            s.setDouble(3, from);
            s.setDouble(4, to);
            read(s, parts);
        }
        return joined(parts).between(from, to);
    }

    /** Everything a run holds of a channel. */
    RawSamples all(int run, String channel) throws SQLException, DataFormatException {
        List<RawSamples> parts = new ArrayList<>();
        try (PreparedStatement s = connection.prepareStatement(
                "SELECT time, value, coding FROM block WHERE run = ? AND channel = ? ORDER BY seq")) {
            s.setInt(1, run);
            s.setString(2, channel);
            read(s, parts);
        }
        RawSamples all = joined(parts);
        if (all.size() != count(run, channel)) {
            throw new DataFormatException("outlines and blocks differ");
        }
        return all;
    }

    private static void read(PreparedStatement s, List<RawSamples> parts) throws SQLException, DataFormatException {
        try (ResultSet r = s.executeQuery()) {
            while (r.next()) {
                parts.add(unpack(r.getBytes(1), r.getBytes(2), r.getInt(3)));
            }
        }
    }

    private static RawSamples joined(List<RawSamples> parts) {
        int n = parts.stream().mapToInt(RawSamples::size).sum();
        double[] time = new double[n];
        double[] values = new double[n];
        int at = 0;
        for (RawSamples p : parts) {
            System.arraycopy(p.time(), 0, time, at, p.size());
            System.arraycopy(p.values(), 0, values, at, p.size());
            at += p.size();
        }
        return new RawSamples(time, values);
    }
}
