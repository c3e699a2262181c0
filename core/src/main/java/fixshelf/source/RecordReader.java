package fixshelf.source;

import java.io.IOException;
import java.io.Reader;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Reads records of delimited text one by one. Lines may end with LF, CR LF or CR, also mixed.
final class RecordReader {
    static final int LONGEST_FIELD = 64_000_000;

    /// What stands for bytes that are no text in the encoding of the file; no text may hold it.
    static final char NOT_DECODED = '\uFFFF';

    /// Stands for a separator of several characters, which are looked for before; a text that holds it gets them.
    private static final char SEVERAL = '\uFDD2';
    private static final int NONE = -3;

    private final Reader in;
    private final int separator;
    private final String written;
    private final int quote;
    private int next;
    private int line = 1;
    private boolean oneColumn;
    private int blanks;

    /// A field; `quoted` tells `""` from nothing at all.
    record Field(String text, boolean quoted) {}

    /// A record, or why it is none.
    ///
    /// @param line where it begins, from 1
    sealed interface Item {
        int line();

        record Row(int line, List<Field> fields) implements Item {}

        record Broken(int line, Why why, String start) implements Item {}
    }

    /// Why a record is none.
    enum Why {
        TEXT_AFTER_QUOTE("there is text after a closing quote"),
        OPEN_QUOTE("a quote opens here and never closes"),
        TOO_LONG("a field is longer than 64 million characters"),
        NOT_DECODED("it holds bytes that are not in the file's encoding"),
        FIELDS("it has another number of fields than the heading");

        private final String sentence;

        Why(String sentence) {
            this.sentence = sentence;
        }

        String sentence() {
            return sentence;
        }
    }

    /// A reader that skips a byte order mark; `separator` and `quote` may be empty.
    RecordReader(Reader in, String separator, String quote) throws IOException {
        this.in = separator.length() > 1 ? new Joined(in, separator) : in;
        this.separator = separator.isEmpty() ? NONE : separator.length() > 1 ? SEVERAL : separator.charAt(0);
        this.written = separator;
        this.quote = quote.isEmpty() ? -2 : quote.charAt(0);
        next = this.in.read();
        if (next == 0xFEFF) {
            next = this.in.read();
        }
    }

    /// Gives one sign for several that stand together.
    private static final class Joined extends Reader {
        private final Reader in;
        private final String separator;
        private final StringBuilder ahead = new StringBuilder();

        Joined(Reader in, String separator) {
            this.in = in;
            this.separator = separator;
        }

        @Override
        public int read() throws IOException {
            while (ahead.length() < separator.length()) {
                int more = in.read();
                if (more < 0) {
                    break;
                }
                ahead.append((char) more);
            }
            if (ahead.length() == separator.length() && ahead.indexOf(separator) == 0) {
                ahead.setLength(0);
                return SEVERAL;
            }
            if (ahead.isEmpty()) {
                return -1;
            }
            char first = ahead.charAt(0);
            ahead.deleteCharAt(0);
            return first;
        }

        @Override
        public int read(char[] to, int from, int count) throws IOException {
            int read = read();
            if (read < 0) {
                return -1;
            }
            to[from] = (char) read;
            return 1;
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
    }

    private String whole(StringBuilder text) {
        return separator == SEVERAL ? text.toString().replace(String.valueOf(SEVERAL), written) : text.toString();
    }

    /// From here on records have one field, so that a line without any character is one that is empty.
    void hasOneColumn() {
        oneColumn = true;
    }

    /// The next record, or nothing at the end. Lines without any character are passed over; where there is one column,
    /// only those at the end of the file.
    Optional<Item> next() throws IOException {
        while (next == '\n' || next == '\r') {
            blanks++;
            endLine();
        }
        if (next < 0) {
            return Optional.empty();
        }
        if (oneColumn && blanks > 0) {
            return Optional.of(new Item.Row(line - blanks--, List.of(new Field("", false))));
        }
        blanks = 0;
        int start = line;
        List<Field> fields = new ArrayList<>();
        while (true) {
            StringBuilder text = new StringBuilder();
            Optional<Why> broken = next == quote ? quoted(text) : plain(text);
            if (broken.isPresent()) {
                return Optional.of(new Item.Broken(start, broken.get(), shown(fields, text)));
            }
            fields.add(new Field(whole(text), wasQuoted));
            if (next != separator) {
                endLine();
                return Optional.of(decoded(start, fields));
            }
            next = in.read();
        }
    }

    private static Item decoded(int start, List<Field> fields) {
        boolean broken = fields.stream().anyMatch(f -> f.text().indexOf(NOT_DECODED) >= 0);
        return broken ? new Item.Broken(start, Why.NOT_DECODED, shown(fields, "")) : new Item.Row(start, fields);
    }

    private static String shown(List<Field> fields, CharSequence last) {
        StringBuilder out = new StringBuilder();
        fields.forEach(f -> out.append(f.text()).append(' '));
        out.append(last);
        return out.substring(0, Math.min(60, out.length()));
    }

    private boolean wasQuoted;

    private Optional<Why> plain(StringBuilder text) throws IOException {
        wasQuoted = false;
        while (next != separator && next != '\n' && next != '\r' && next >= 0) {
            text.append((char) next);
            next = in.read();
            if (text.length() > LONGEST_FIELD) {
                skipLine();
                return Optional.of(Why.TOO_LONG);
            }
        }
        return Optional.empty();
    }

    private Optional<Why> quoted(StringBuilder text) throws IOException {
        wasQuoted = true;
        next = in.read();
        while (true) {
            if (next < 0) {
                return Optional.of(Why.OPEN_QUOTE);
            }
            if (next == quote) {
                next = in.read();
                if (next != quote) {
                    break;
                }
            }
            boolean second = next == '\n' && !text.isEmpty() && text.charAt(text.length() - 1) == '\r';
            if (next == '\r' || next == '\n' && !second) {
                line++;
            }
            text.append((char) next);
            next = in.read();
            if (text.length() > LONGEST_FIELD) {
                skipLine();
                return Optional.of(Why.TOO_LONG);
            }
        }
        if (next == separator || next == '\n' || next == '\r' || next < 0) {
            return Optional.empty();
        }
        skipLine();
        return Optional.of(Why.TEXT_AFTER_QUOTE);
    }

    private void skipLine() throws IOException {
        while (next != '\n' && next != '\r' && next >= 0) {
            next = in.read();
        }
        endLine();
    }

    private void endLine() throws IOException {
        if (next < 0) {
            return;
        }
        line++;
        int ended = next;
        next = in.read();
        if (ended == '\r' && next == '\n') {
            next = in.read();
        }
    }

    /// Passes over lines until the given one begins.
    void skipToLine(int wanted) throws IOException {
        while (line < wanted && next >= 0) {
            skipLine();
        }
    }
}
