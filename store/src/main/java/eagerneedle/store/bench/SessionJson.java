package eagerneedle.store.bench;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/** A session as compressed JSON, field for field. Doubles are written so that they read back to the last bit. */
final class SessionJson {
    private static final ObjectMapper MAPPER = JsonMapper.builder()
            .addModule(new JavaTimeModule())
            .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    private SessionJson() {}

    /** The session as compressed JSON. */
    static byte[] pack(Session session) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (DeflaterOutputStream to = new DeflaterOutputStream(out)) {
            MAPPER.writeValue(to, session);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** One run as JSON. */
    static byte[] packRun(Run run) {
        try {
            return MAPPER.writeValueAsBytes(run);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static Run unpackRun(byte[] json) throws IOException {
        return MAPPER.readValue(json, Run.class);
    }

    /** @throws IOException when the bytes are not what {@link #pack} made */
    static Session unpack(byte[] packed) throws IOException {
        return MAPPER.readValue(new InflaterInputStream(new ByteArrayInputStream(packed)), Session.class);
    }
}
