package eagerneedle.app.workbench;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.util.FileSize;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.slf4j.LoggerFactory;

/**
 * What the program did and what went wrong in it, in a file of the user's folder that begins anew at a megabyte and
 * keeps three older ones. It holds no readings and no results.
 */
public final class ProgramLog {
    private static final String LARGEST = "1MB";
    private static final int OLDER = 3;

    private ProgramLog() {}

    /** Where it is written. */
    public static Path file() {
        return Home.folder().resolve("log").resolve("needle.log");
    }

    /** Writes from now on what the program says of itself, and what its libraries warn of. */
    public static void begin() {
        LoggerContext context = (LoggerContext) LoggerFactory.getILoggerFactory();
        Logger root = context.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        root.detachAndStopAllAppenders();
        PatternLayoutEncoder encoder = new PatternLayoutEncoder();
        encoder.setContext(context);
        encoder.setCharset(StandardCharsets.UTF_8);
        encoder.setPattern("%d{yyyy-MM-dd'T'HH:mm:ss.SSSXXX} %-5level [%thread] %logger{24}: %msg%n%ex");
        encoder.start();
        RollingFileAppender<ILoggingEvent> appender = new RollingFileAppender<>();
        appender.setContext(context);
        appender.setFile(file().toString());
        appender.setEncoder(encoder);
        FixedWindowRollingPolicy older = new FixedWindowRollingPolicy();
        older.setContext(context);
        older.setParent(appender);
        older.setFileNamePattern(file().resolveSibling("needle.%i.log").toString());
        older.setMinIndex(1);
        older.setMaxIndex(OLDER);
        older.start();
        SizeBasedTriggeringPolicy<ILoggingEvent> size = new SizeBasedTriggeringPolicy<>();
        size.setContext(context);
        size.setMaxFileSize(FileSize.valueOf(LARGEST));
        size.start();
        appender.setRollingPolicy(older);
        appender.setTriggeringPolicy(size);
        appender.start();
        root.addAppender(appender);
        root.setLevel(Level.WARN);
        context.getLogger("eagerneedle").setLevel(Level.INFO);
        LoggerFactory.getLogger(ProgramLog.class)
                .info("Eager Needle {} on Java {}", Version.number(), Runtime.version());
    }

    /**
     * The newest part of the log.
     *
     * @param most bytes
     * @return empty when nothing was written, or it cannot be read
     */
    static String newest(int most) {
        if (!Files.isReadable(file())) {
            return "";
        }
        try (RandomAccessFile log = new RandomAccessFile(file().toFile(), "r")) {
            log.seek(Math.max(0, log.length() - most));
            byte[] bytes = new byte[(int) (log.length() - log.getFilePointer())];
            log.readFully(bytes);
            return new String(bytes, StandardCharsets.UTF_8);
        } catch (IOException e) {
            return "The log cannot be read: " + e.getMessage();
        }
    }
}
