package fixshelf.source;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;

/// Whether a file is formed so that there is only one way to read it. Such a file is read by DuckDB, in parallel; all
/// others record by record, by [RecordReader], which is the meaning of delimited text here.
///
/// A file is plain when all its lines end in the same way, every quote stands at the start or at the end of its field,
/// no line is blank, and every record has as many fields as the heading. It is looked at as bytes, in one pass.
final class PlainScan {
    private static final int BUFFER = 1 << 18;
    /// From how many bytes on two threads look at a file.
    private static final long LARGE = 1L << 24;

    private final byte separator;
    private final int quote;
    /// Whether a byte, inside of a field, is nothing but text.
    private final boolean[] isText = new boolean[256];

    private final int width;
    private final long most;
    private long records;
    private int fields = 1;
    private Place place = Place.RECORD_START;
    private LineEnd lineEnd = LineEnd.NOT_SEEN;
    private boolean afterReturn;
    private boolean first = true;

    /// Where in a record the next byte is.
    private enum Place {
        RECORD_START,
        FIELD_START,
        PLAIN,
        QUOTED,
        AFTER_QUOTE
    }

    private enum LineEnd {
        NOT_SEEN,
        LF,
        CR_LF
    }

    private PlainScan(ReadOptions options, int width, long most) {
        this.separator = (byte) options.separator().charAt(0);
        this.quote = options.quote().isEmpty() ? 256 : options.quote().charAt(0);
        this.width = width;
        this.most = most;
        for (int b = 0; b < isText.length; b++) {
            isText[b] = (b > '\r' || b == '\t') && (byte) b != separator && (byte) b != quote;
        }
    }

    /// Looks at the first `records` records of a file with that many columns.
    static boolean isPlain(Path file, ReadOptions options, int width, long records) throws IOException {
        if (Files.size(file) == 0) {
            // A file of the system, which has no size before it is read.
            return false;
        }
        if (records == Long.MAX_VALUE && Files.size(file) > LARGE) {
            Optional<Boolean> halves = inHalves(file, options, width);
            if (halves.isPresent()) {
                return halves.get();
            }
        }
        PlainScan scan = new PlainScan(options, width, records);
        return scan.isPlain(file, 0, Long.MAX_VALUE) && (scan.records > scan.most || scan.endsPlain());
    }

    /// Both halves at once, where a record ends with the line that ends in the middle; otherwise nothing is known.
    static Optional<Boolean> inHalves(Path file, ReadOptions options, int width) throws IOException {
        long middle = lineEnd(file, Files.size(file) / 2);
        if (middle < 0) {
            return Optional.empty();
        }
        PlainScan first = new PlainScan(options, width, Long.MAX_VALUE);
        PlainScan second = new PlainScan(options, width, Long.MAX_VALUE);
        second.first = false;
        second.records = 1;
        second.lineEnd = byteAt(file, middle - 2) == '\r' ? LineEnd.CR_LF : LineEnd.LF;
        CompletableFuture<Boolean> other = CompletableFuture.supplyAsync(() -> {
            try {
                return second.isPlain(file, middle, Long.MAX_VALUE);
            } catch (IOException e) {
                return false;
            }
        });
        boolean begins = first.isPlain(file, 0, middle);
        boolean ends = other.join();
        if (begins && first.place != Place.RECORD_START) {
            return Optional.empty();
        }
        return Optional.of(begins && ends && second.lineEnd == first.lineEnd && second.endsPlain());
    }

    private static byte byteAt(Path file, long place) throws IOException {
        ByteBuffer one = ByteBuffer.allocate(1);
        try (SeekableByteChannel channel = Files.newByteChannel(file).position(Math.max(0, place))) {
            channel.read(one);
        }
        return one.get(0);
    }

    /// The place after the first line end from there on; negative where none is near.
    private static long lineEnd(Path file, long from) throws IOException {
        byte[] bytes = new byte[BUFFER];
        try (SeekableByteChannel channel = Files.newByteChannel(file).position(from)) {
            int read = channel.read(ByteBuffer.wrap(bytes));
            for (int i = 0; i < read; i++) {
                if (bytes[i] == '\n') {
                    return from + i + 1;
                }
            }
        }
        return -1;
    }

    /// Looks at the bytes between two places, until it is known that the file is not plain, or enough records were
    /// seen.
    private boolean isPlain(Path file, long begin, long end) throws IOException {
        byte[] buffer = new byte[BUFFER];
        long left = end - begin;
        try (InputStream in = Files.newInputStream(file)) {
            in.skipNBytes(begin);
            int from = 0;
            for (int read = in.readNBytes(buffer, 0, (int) Math.min(BUFFER, left));
                    read > 0;
                    read = in.readNBytes(buffer, 0, (int) Math.min(BUFFER, left))) {
                left -= read;
                if (records == 0 && first) {
                    boolean mark = read > 2
                            && buffer[0] == (byte) 0xEF
                            && buffer[1] == (byte) 0xBB
                            && buffer[2] == (byte) 0xBF;
                    from = mark ? 3 : 0;
                }
                if (!isPlain(buffer, from, read)) {
                    return false;
                }
                if (records > most) {
                    return true;
                }
                from = 0;
            }
        }
        return true;
    }

    private boolean endsPlain() {
        return switch (place) {
            case RECORD_START -> !afterReturn;
            case QUOTED -> false;
            case FIELD_START, PLAIN, AFTER_QUOTE -> !afterReturn && fields == width;
        };
    }

    /// Most bytes stand inside of fields; what they and the separators between them mean is worked out here without
    /// any state but the number of fields.
    private boolean isPlain(byte[] bytes, int from, int to) {
        boolean inside = place == Place.PLAIN && !afterReturn;
        int now = fields;
        for (int i = from; i < to; i++) {
            byte b = bytes[i];
            if (inside && isText[b & 0xFF]) {
                continue;
            }
            if (b == separator && (inside || place == Place.FIELD_START)) {
                now++;
                if (inside) {
                    inside = false;
                    place = Place.FIELD_START;
                }
                // A field that begins with text is the usual one.
                if (i + 1 < to && isText[bytes[i + 1] & 0xFF]) {
                    i++;
                    inside = true;
                    place = Place.PLAIN;
                }
                continue;
            }
            fields = now;
            if (now > width || !next(b)) {
                return false;
            }
            now = fields;
            inside = place == Place.PLAIN && !afterReturn;
        }
        fields = now;
        first = false;
        return now <= width;
    }

    private boolean next(byte b) {
        if (b == 0 || b == 1) {
            return false;
        }
        if (place == Place.QUOTED) {
            // A line break in the heading, or one of another kind, is read in more than one way.
            boolean oddBreak = b == '\r' || b == '\n' && (records == 0 || lineEnd != LineEnd.LF);
            place = b == quote ? Place.AFTER_QUOTE : place;
            return !oddBreak;
        }
        if (afterReturn) {
            return b == '\n' && ended(LineEnd.CR_LF);
        }
        if (b == '\n') {
            return ended(LineEnd.LF);
        }
        if (b == '\r') {
            afterReturn = true;
            return place != Place.RECORD_START;
        }
        if (b == separator) {
            place = Place.FIELD_START;
            return ++fields <= width;
        }
        if (b == quote) {
            boolean opens = place == Place.RECORD_START || place == Place.FIELD_START;
            boolean doubled = place == Place.AFTER_QUOTE;
            place = Place.QUOTED;
            return opens || doubled;
        }
        boolean goesOn = place != Place.AFTER_QUOTE;
        place = Place.PLAIN;
        return goesOn;
    }

    private boolean ended(LineEnd kind) {
        boolean blank = place == Place.RECORD_START;
        boolean same = lineEnd == LineEnd.NOT_SEEN || lineEnd == kind;
        boolean whole = fields == width;
        lineEnd = kind;
        afterReturn = false;
        place = Place.RECORD_START;
        fields = 1;
        records++;
        return same && whole && !blank;
    }
}
