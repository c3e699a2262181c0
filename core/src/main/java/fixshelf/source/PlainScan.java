package fixshelf.source;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/// Whether a file is formed so that there is only one way to read it. Such a file is read by DuckDB, in parallel; all
/// others record by record, by [RecordReader], which is the meaning of delimited text here.
///
/// A file is plain when all its lines end in the same way, every quote stands at the start or at the end of its field,
/// no line is blank, and every record has as many fields as the heading. It is looked at as bytes, in one pass.
final class PlainScan {
    private static final int BUFFER = 1 << 18;

    private final byte separator;
    private final int quote;
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
        this.separator = (byte) options.separator();
        this.quote = options.quote().isEmpty() ? -1 : options.quote().charAt(0);
        this.width = width;
        this.most = most;
    }

    /// Looks at the first `records` records of a file with that many columns.
    static boolean isPlain(Path file, ReadOptions options, int width, long records) throws IOException {
        if (Files.size(file) == 0) {
            // A file of the system, which has no size before it is read.
            return false;
        }
        PlainScan scan = new PlainScan(options, width, records);
        byte[] buffer = new byte[BUFFER];
        try (InputStream in = Files.newInputStream(file)) {
            int from = 0;
            for (int read = in.readNBytes(buffer, 0, BUFFER); read > 0; read = in.readNBytes(buffer, 0, BUFFER)) {
                if (scan.records == 0 && scan.first) {
                    boolean mark = read > 2
                            && buffer[0] == (byte) 0xEF
                            && buffer[1] == (byte) 0xBB
                            && buffer[2] == (byte) 0xBF;
                    from = mark ? 3 : 0;
                }
                if (!scan.isPlain(buffer, from, read)) {
                    return false;
                }
                if (scan.records > scan.most) {
                    return true;
                }
                from = 0;
            }
        }
        return scan.endsPlain();
    }

    private boolean endsPlain() {
        return switch (place) {
            case RECORD_START -> !afterReturn;
            case QUOTED -> false;
            case FIELD_START, PLAIN, AFTER_QUOTE -> !afterReturn && fields == width;
        };
    }

    private boolean isPlain(byte[] bytes, int from, int to) {
        for (int i = from; i < to; i++) {
            byte b = bytes[i];
            if (place == Place.PLAIN && b > '\r' && b != separator && b != quote) {
                continue;
            }
            if (!next(b)) {
                return false;
            }
        }
        first = false;
        return true;
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
