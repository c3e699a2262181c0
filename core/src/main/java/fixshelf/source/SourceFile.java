package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Column;
import fixshelf.type.ColumnNames;
import fixshelf.type.Type;
import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;

/// A file with rows, and how it is read; or several of one folder, whose names fit a pattern. All values are texts.
///
/// @param file the file itself, or the pattern
/// @param columns its columns, all text
/// @param copied what the file is a copy of, where it is one
/// @param declared the types that it says of its columns; empty where it says none
/// @param noticed what is worth saying of its first record
public record SourceFile(
        Path file,
        ReadOptions options,
        List<Column> columns,
        Optional<Copied> copied,
        List<Type> declared,
        List<String> noticed) {
    public SourceFile {
        columns = List.copyOf(columns);
        declared = List.copyOf(declared);
        noticed = List.copyOf(noticed);
    }

    SourceFile(Path file, ReadOptions options, List<Column> columns) {
        this(file, options, columns, Optional.empty(), List.of(), List.of());
    }

    private SourceFile noticing(List<String> notes) {
        return new SourceFile(file, options, columns, copied, declared, notes);
    }

    /// The same with types that are said of its columns.
    public SourceFile declaring(List<Type> types) {
        return new SourceFile(
                file, options, columns, copied, types.size() == columns.size() ? types : List.of(), noticed);
    }

    /// Whether it says a type of any column that is another one than text.
    public boolean isTyped() {
        return declared.stream().anyMatch(t -> !t.equals(Type.TEXT));
    }

    /// What a file is a copy of.
    ///
    /// @param at when it was made; empty where that does not matter
    public record Copied(String from, Optional<Instant> at) {
        /// With its age as it is now.
        String sentence() {
            return from + at.map(t -> ", read " + Age.of(t)).orElse("") + ".";
        }
    }

    /// The same file as a copy of something that is not here.
    public SourceFile copyOf(Copied what) {
        return new SourceFile(file, options, columns, Optional.of(what), declared, noticed);
    }

    /// What is worth saying of the rows: where they come from, and how they were read.
    public List<String> notes(Optional<CarefulRows> rows) {
        List<String> notes = new ArrayList<>();
        copied.map(Copied::sentence).ifPresent(notes::add);
        notes.addAll(noticed);
        rows.map(CarefulRows::notes).ifPresent(notes::addAll);
        return notes;
    }

    /// How it is read, and what its files are now: another text for a file that was replaced or read otherwise.
    public String stamp() {
        StringBuilder stamp = new StringBuilder(toString());
        try {
            for (Path one : files()) {
                stamp.append(one).append(Files.size(one)).append(Files.getLastModifiedTime(one));
            }
        } catch (IOException e) {
            // A file that is not there is told of where it is read.
            stamp.append("away");
        }
        return stamp.toString();
    }

    /// As many as the widest sheet of a workbook.
    static final int MOST_COLUMNS = 16_384;

    /// Looks at the beginning of the file for its columns; fails when it is missing, empty or has no readable
    /// heading.
    public static Outcome<SourceFile> open(Path file, ReadOptions options) {
        String name = file.toString();
        if (FilePattern.is(file)) {
            return FilePattern.open(file, options);
        }
        Optional<Problem> other = SourceKind.objection(file);
        if (other.isEmpty() && Files.isRegularFile(file)) {
            ReadOptions.Form form = options.form().orElseGet(() -> SourceKind.form(file));
            if (!(form instanceof ReadOptions.Form.Delimited)) {
                return other(file, options.withForm(form));
            }
            other = SourceKind.noText(file);
        }
        if (other.isPresent()) {
            return Outcome.failed(other.get());
        }
        if (!Files.isRegularFile(file)) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    name,
                    "There is no file " + file.getFileName() + ".",
                    "Look at the path; it goes from the shelf's folder: " + file.toAbsolutePath() + "."));
        }
        try (Reader in = reader(file, options)) {
            RecordReader records = new RecordReader(in, options.separator(), options.quote());
            Optional<RecordReader.Item> first = records.next();
            if (first.isEmpty()) {
                return Outcome.failed(Problem.about(
                        Code.FILE_EMPTY, name, "The file is empty.", "Name another file, or ask where its rows went."));
            }
            return switch (first.get()) {
                case RecordReader.Item.Row(int _, List<RecordReader.Field> fields) ->
                    Outcome.of(new SourceFile(file, options, columns(fields, options.heading()))
                            .noticing(HeadingNotes.of(
                                    options,
                                    fields.stream()
                                            .map(RecordReader.Field::text)
                                            .toList())));
                case RecordReader.Item.Broken(int line, RecordReader.Why why, String _) ->
                    Outcome.failed(problem(file, line, why));
            };
        } catch (EOFException | ZipException e) {
            return Outcome.failed(Problem.about(
                    Code.FILE_BROKEN,
                    name,
                    file.getFileName() + " is compressed (gzip), and cut off or broken.",
                    "Ask for it again."));
        } catch (IOException e) {
            return Outcome.failed(unreadable(file, e));
        }
    }

    /// A file of another kind.
    private static Outcome<SourceFile> other(Path file, ReadOptions options) {
        try {
            KnownColumns.Known known = known(file, options);
            List<RecordReader.Field> names = known.names().stream()
                    .map(n -> new RecordReader.Field(n, true))
                    .toList();
            if (names.isEmpty()) {
                return Outcome.failed(Problem.about(
                        Code.FILE_EMPTY,
                        file.toString(),
                        "There is no row to read in " + file.getFileName() + ".",
                        "Name another file, sheet or block."));
            }
            if (names.size() > MOST_COLUMNS) {
                return Outcome.failed(Problem.about(
                        Code.FILE_BROKEN,
                        file.toString(),
                        String.format(
                                "%s has more than %,d columns, which is no table that is worked with here.",
                                file.getFileName(), MOST_COLUMNS),
                        "Name a part of it, or look whether its names are values."));
            }
            return Outcome.of(new SourceFile(file, options, columns(names, true)).declaring(known.types()));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(unreadable(file, e));
        }
    }

    /// Why a file cannot be read at all.
    static Problem unreadable(Path file, IOException why) {
        return Problem.about(
                Code.FILE_MISSING,
                file.toString(),
                "The file cannot be read: " + why.getMessage() + ".",
                "Look at its rights.");
    }

    /// The columns as they are written.
    private static KnownColumns.Known known(Path file, ReadOptions options) throws IOException {
        return KnownColumns.of(file, options, () -> {
            if (options.form().orElseThrow() instanceof ReadOptions.Form.Json(String rows, String each)) {
                return KnownColumns.Known.texts(JsonRecords.namesOf(file, rows, each, MOST_COLUMNS));
            }
            try (Records records = records(file, options)) {
                return new KnownColumns.Known(records.names(), records.types());
            }
        });
    }

    /// The files that the rows are in: the file itself, or those that fit a pattern.
    public List<Path> files() {
        return filesOf(file);
    }

    /// The file itself, or those that fit a pattern.
    public static List<Path> filesOf(Path path) {
        return FilePattern.is(path) ? FilePattern.files(path) : List.of(path);
    }

    /// Whether it stands for several files.
    public boolean isPattern() {
        return FilePattern.is(file);
    }

    /// Whether a path stands for several files.
    public static boolean isPattern(Path path) {
        return FilePattern.is(path);
    }

    /// Whether the name of a file fits the name of a pattern.
    public static boolean fits(Path pattern, Path file) {
        return FilePattern.matcher(pattern).matches(file.getFileName());
    }

    /// How many bytes all its files have.
    public long bytes() throws IOException {
        long bytes = 0;
        for (Path one : files()) {
            bytes += Files.size(one);
        }
        return bytes;
    }

    /// Whether it is delimited text.
    public boolean isDelimited() {
        return options.form().isEmpty() || options.form().get() instanceof ReadOptions.Form.Delimited;
    }

    /// The rows of a file that is no delimited text.
    Records records() throws IOException {
        return records(file, options);
    }

    static Records records(Path file, ReadOptions options) throws IOException {
        return switch (options.form().orElseThrow()) {
            case ReadOptions.Form.Workbook workbook -> new WorkbookRecords(file, options, workbook);
            case ReadOptions.Form.Json(String rows, String each) ->
                new JsonRecords(file, rows, each, known(file, options).names());
            case ReadOptions.Form.Parquet() -> new ParquetFile(file).records();
            case ReadOptions.Form.Pdf pdf -> new PdfRecords(file, options, pdf);
            case ReadOptions.Form.Html html -> new HtmlRecords(file, options, html);
            case ReadOptions.Form.Database database -> new DatabaseFile(file, database).records();
            case ReadOptions.Form.Places places -> new PlaceRecords(file, options, places);
            case ReadOptions.Form.Delimited(), ReadOptions.Form.Elsewhere _ ->
                throw new IllegalArgumentException("delimited text is read by itself, and what is no file by its copy");
        };
    }

    static Problem problem(Path file, int line, RecordReader.Why why) {
        Code code =
                switch (why) {
                    case OPEN_QUOTE, TEXT_AFTER_QUOTE -> Code.UNCLOSED_QUOTE;
                    case TOO_LONG -> Code.FIELD_TOO_LONG;
                    case NOT_DECODED -> Code.BAD_ENCODING;
                    case FIELDS -> Code.BAD_ROWS;
                };
        String todo =
                switch (why) {
                    case OPEN_QUOTE, TEXT_AFTER_QUOTE -> "Mend that line, or set another quote for this file.";
                    case TOO_LONG -> "Look at that line: a quote may be missing.";
                    case NOT_DECODED ->
                        "Set another encoding for this file: windows-1252 is the commonest of spreadsheets.";
                    case FIELDS -> "Mend that line, or leave out rows of another shape.";
                };
        return Problem.about(code, file + ":" + line, "Line " + line + ": " + why.sentence() + ".", todo);
    }

    static Reader reader(Path file, ReadOptions options) throws IOException {
        CharsetDecoder decoder = options.charset()
                .newDecoder()
                .replaceWith(String.valueOf(RecordReader.NOT_DECODED))
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE);
        return new BufferedReader(new InputStreamReader(unpacked(file), decoder), 1 << 16);
    }

    /// The bytes of a file, unpacked where it is compressed by gzip.
    static InputStream unpacked(Path file) throws IOException {
        InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16);
        try {
            return SourceKind.isGzip(file) ? new GZIPInputStream(in, 1 << 16) : in;
        } catch (IOException e) {
            in.close();
            throw e;
        }
    }

    /// Columns with the names of the heading, as far as they can be kept.
    private static List<Column> columns(List<RecordReader.Field> fields, boolean heading) {
        List<String> written = fields.stream().map(f -> heading ? f.text() : "").toList();
        return ColumnNames.distinct(written).stream()
                .map(n -> new Column(n, Type.TEXT))
                .toList();
    }

    /// Whether DuckDB can read the first `records` records of the file as they are; otherwise they need
    /// [CarefulRows].
    public boolean isPlain(long records) {
        if (isPattern()) {
            return false;
        }
        if (!isDelimited()) {
            return options.form().get() instanceof ReadOptions.Form.Parquet;
        }
        if (SourceKind.isGzip(file)) {
            return false;
        }
        boolean readable = ENGINE_ENCODINGS.contains(options.encoding())
                && file.toString().chars().noneMatch(c -> "*?[]{}".indexOf(c) >= 0)
                && options.separator().length() == 1
                && options.separator().charAt(0) < 128
                && options.separator().charAt(0) > ' '
                && options.quote().chars().allMatch(c -> c < 128);
        boolean tab = options.separator().equals("\t") && ENGINE_ENCODINGS.contains(options.encoding());
        try {
            return (readable || tab) && PlainScan.isPlain(file, options, columns.size(), records);
        } catch (IOException e) {
            return false;
        }
    }

    private static final Set<String> ENGINE_ENCODINGS = Set.of("utf-8", "latin-1");

    /// The relation whose columns have the types that the file declares, where it is read so at once: the engine
    /// refuses it where a value is none of ours.
    Optional<String> typedRelation() {
        boolean isParquet =
                !isPattern() && options.form().orElse(null) instanceof ReadOptions.Form.Parquet && !declared.isEmpty();
        return isParquet
                ? ParquetFile.typed(file, columns.stream().map(Column::name).toList(), declared)
                : Optional.empty();
    }

    /// The relation that reads this file strictly: DuckDB refuses what does not fit.
    public String relation() {
        if (!isDelimited()) {
            return ParquetFile.relation(file, columns.stream().map(Column::name).toList());
        }
        String shape = columns.stream()
                .map(c -> DuckSession.name(c.name()) + ": 'VARCHAR'")
                .collect(Collectors.joining(", ", "{", "}"));
        List<String> words = options.nullWords().isEmpty() ? List.of("\u0001") : options.nullWords();
        String nulls = words.stream().map(DuckSession::text).collect(Collectors.joining(", ", "[", "]"));
        String keepEmpty = words.contains("")
                ? ""
                : ", force_not_null = ["
                        + columns.stream().map(c -> DuckSession.text(c.name())).collect(Collectors.joining(", ")) + "]";
        return "read_csv(" + DuckSession.text(file.toString()) + ", auto_detect = false, columns = " + shape
                + ", delim = " + DuckSession.text(options.separator()) + ", quote = "
                + DuckSession.text(options.quote())
                + ", escape = " + DuckSession.text(options.quote()) + ", header = " + options.heading()
                + ", encoding = "
                + DuckSession.text(options.encoding()) + ", nullstr = " + nulls + ", allow_quoted_nulls = false"
                + (words.size() == 1 && words.getFirst().equals("\u0001") ? keepEmpty : "")
                + ", max_line_size = 2097152)";
    }
}
