package fixshelf.shelf;

import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Names;
import fixshelf.operations.Operations;
import fixshelf.plan.Context;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage.Output;
import fixshelf.shelf.JobPage.PlacedLine;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/// Reads the page of a job.
public final class JobPages {
    static final Context NO_COLUMNS = new Context(
            new Relation.Source("none", new Shape(List.of())),
            Scope.Fixes.NONE,
            Map.of(),
            Context.Sources.NONE,
            new Context.Ids(0));

    private final SourceText source;
    private final List<Problem> problems = new ArrayList<>();

    private JobPages(SourceText source) {
        this.source = source;
    }

    public static JobPage read(Path file, SourceText source) {
        return new JobPages(source).page(file);
    }

    /// A line as it stands at a dash.
    public static Line call(String written) {
        String text = "job: call\nlines:\n  - read: given\n  - " + written.replace("\n", "\n    ") + "\n";
        return read(Path.of("call.yaml"), new SourceText("call", text))
                .lines()
                .getLast()
                .line();
    }

    private JobPage page(Path file) {
        String fallback = file.getFileName().toString().replaceFirst("\\.ya?ml$", "");
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        fields.ifPresent(f -> f.allowPage(Set.of("job", "title", "about", "parameters", "lines", "outputs", "result")));
        List<PlacedLine> lines = fields.map(f -> f.each("lines", this::line)).orElse(List.of());
        // Whether another call is that of a loader, only the shelf knows.
        boolean reads = !lines.isEmpty()
                && (lines.getFirst().line().isRead()
                        || Operations.find(lines.getFirst().line().call()).isEmpty());
        if (fields.isPresent() && !reads) {
            Span at = lines.isEmpty() ? new Span(0, 0) : lines.getFirst().span();
            report(
                    Code.BAD_FIELD,
                    at,
                    "The first line of a job reads something.",
                    "Begin with `- read: name` of a dataset, `- read: {file: path}`, or a loader of the shelf.");
        }
        String name = fields.flatMap(f -> f.text("job")).orElse(fallback);
        fields.ifPresent(f -> f.wantName("job", name, "Write visits_clean, say."));
        String result = fields.flatMap(f -> f.text("result")).orElse("").strip();
        fields.filter(_ -> !result.isEmpty()).ifPresent(f -> wantLine(f, result, lines));
        return new JobPage(
                file,
                source,
                name,
                fields.map(f -> f.text("title", name.replace('_', ' '))).orElse(name),
                fields.map(f -> f.text("about", "")).orElse(""),
                fields.map(f -> f.pairs("parameters")).orElse(Map.of()),
                lines,
                fields.map(f -> f.each("outputs", this::output)).orElse(List.of()),
                result,
                List.copyOf(problems));
    }

    private static void wantLine(Yaml.Fields fields, String result, List<PlacedLine> lines) {
        boolean there = IntStream.range(0, lines.size())
                .anyMatch(i -> JobPage.isNamed(lines.get(i).line(), i + 1, result));
        if (!there) {
            List<String> names = lines.stream()
                    .map(l -> l.line().name())
                    .filter(n -> !n.isEmpty())
                    .toList();
            fields.report(
                    Code.NO_SUCH,
                    fields.spanOfValue("result"),
                    "There is no line " + result + " in this job.",
                    Names.suggest(result, names, "Give a line a `name`, or leave `result` out for the last line."));
        }
    }

    private Optional<PlacedLine> line(Yaml.Fields fields) {
        Optional<PlacedLine> line = LineFields.read(fields);
        line.filter(l -> l.line().call().equals(Line.READ_FILE)).ifPresent(l -> wantRightOptions(l, fields));
        return line;
    }

    /// Whether each option of a file is one; where it is not, the usual one stands beside the problem.
    private void wantRightOptions(PlacedLine placed, Yaml.Fields fields) {
        Operation reading = Operations.find(Line.READ_FILE).orElseThrow();
        Set<Span> told = new HashSet<>();
        LineFields.form(placed.line()).problems().forEach(p -> {
            Span at = placed.blanks().getOrDefault(p.where().source().name(), placed.span());
            told.add(at);
            fields.report(Code.BAD_FIELD, at, p.what(), p.todo());
        });
        placed.line().blanks().forEach((name, written) -> {
            String text = written instanceof Written.Word(String word) ? word.replace("\\t", "\t") : "";
            Written plain = written instanceof Written.Word ? Written.word(text) : written;
            Span at = placed.blanks().getOrDefault(name, placed.span());
            // What says no kind of file is no word for its blank either, and told already.
            reading.blank(name)
                    .filter(_ -> !told.contains(at))
                    .map(b -> b.kind().read(plain, NO_COLUMNS))
                    .ifPresent(o -> o.problems()
                            .forEach(p -> fields.report(Code.BAD_FIELD, at, name + ": " + p.what(), p.todo())));
        });
    }

    private Optional<Output> output(Yaml.Fields fields) {
        fields.allow(Set.of(
                "write",
                "replace",
                "of",
                "table",
                "mode",
                "user",
                "password_from",
                "sheet",
                "cannot_hold",
                "language",
                "separator",
                "encoding",
                "byte_order_mark",
                "heading",
                "missing",
                "line_end",
                "quotes",
                "formulas"));
        String path = fields.required("write", "Name a file: `write: out/clean.parquet`.");
        Optional<JobPage.OfReport> of = fields.fields("of").map(f -> {
            f.allow(Set.of("line", "report"));
            return new JobPage.OfReport(f.required("line", "Write the line's name or number."), f.text("report", ""));
        });
        return Optional.of(new Output(
                path,
                fields.flag("replace", false),
                fields.span(),
                of,
                table(fields),
                sheet(fields, path),
                language(fields, path),
                text(fields, path)));
    }

    /// How delimited text is written.
    private static DelimitedText text(Yaml.Fields fields, String path) {
        Stream.of("separator", "encoding", "byte_order_mark", "heading", "missing", "line_end", "quotes", "formulas")
                .filter(n -> fields.has(n) && !Output.isText(path))
                .forEach(n -> fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField(n),
                        "Only delimited text has " + n + ".",
                        "Write to a file that ends in .csv, .txt or .tsv."));
        String separator = fields.text("separator", "");
        if (separator.length() > 1 || separator.matches("[\"\\r\\n]")) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("separator"),
                    "A separator is one character, and no quote or line end.",
                    "Write `separator: ';'`, say.");
        }
        String encoding = fields.text("encoding", "utf-8");
        if (!DelimitedText.isWritable(encoding)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("encoding"),
                    ReadOptions.isEncoding(encoding)
                            ? "Text in " + encoding + " can only be read."
                            : "There is no encoding " + encoding + ".",
                    "Write " + String.join(", ", ReadOptions.ENCODINGS) + ", or another that Java knows.");
            encoding = "utf-8";
        }
        boolean mark = fields.flag("byte_order_mark", false);
        if (mark && !DelimitedText.hasMark(encoding)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("byte_order_mark"),
                    "There is no byte order mark in " + encoding + ".",
                    "Leave it out, or write utf-8.");
            mark = false;
        }
        String missing = fields.text("missing", "");
        if (missing.matches("(?s).*[\"\\r\\n].*")) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("missing"),
                    "What stands for missing has no quote and no line end.",
                    "Write a word, such as NA.");
        }
        DelimitedText text = new DelimitedText(
                separator,
                encoding,
                mark,
                fields.flag("heading", true),
                missing,
                fields.choice("line_end", List.of("lf", "crlf")).equals("crlf"),
                fields.choice("quotes", List.of("where_needed", "always")).equals("always"),
                fields.choice("formulas", List.of("as_they_are", "guarded")).equals("guarded"));
        if (missing.contains(text.separatorIn(path))) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("missing"),
                    "What stands for missing has no separator in it.",
                    "Write a word, such as NA.");
        }
        return text;
    }

    /// The language of a definition.
    private static String language(Yaml.Fields fields, String path) {
        boolean definition = Output.isDefinition(path);
        if (fields.has("language") && !definition) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("language"),
                    "Only a definition has a language.",
                    "Write to a file that ends in .sql.");
        }
        if (fields.has("of") && definition) {
            fields.report(
                    Code.BAD_FIELD, fields.spanOfField("of"), "A definition is of the whole job.", "Leave `of` out.");
        }
        return fields.text("language", "");
    }

    /// The sheet of a workbook.
    private static JobPage.InSheet sheet(Yaml.Fields fields, String path) {
        boolean workbook = Output.isWorkbook(path);
        Stream.of("sheet", "cannot_hold")
                .filter(n -> fields.has(n) && !workbook)
                .forEach(n -> fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField(n),
                        "Only a workbook has " + n + ".",
                        "Write to a file that ends in .xlsx."));
        String name = fields.text("sheet", "");
        if (!name.isEmpty() && !isSheetName(name)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("sheet"),
                    "A sheet cannot be called so: " + name + ".",
                    "Take at most 31 characters, none of [ ] : * ? / \\, and no ' at an end.");
        }
        String cannot = fields.choice("cannot_hold", List.of("stop", "text"));
        return new JobPage.InSheet(name, cannot.equals("text"));
    }

    /// In characters, as workbooks have it.
    public static final int LONGEST_SHEET_NAME = 31;

    /// Whether a sheet can be called so.
    private static boolean isSheetName(String name) {
        return !name.isBlank()
                && name.length() <= LONGEST_SHEET_NAME
                && name.chars().noneMatch(c -> "[]:*?/\\".indexOf(c) >= 0 || c < ' ')
                && !name.startsWith("'")
                && !name.endsWith("'");
    }

    /// The table of a database, where one is named.
    private Optional<JobPage.ToTable> table(Yaml.Fields fields) {
        Optional<String> table = fields.text("table").map(String::strip).filter(t -> !t.isEmpty());
        if (table.isEmpty()) {
            Stream.of("mode", "user", "password_from")
                    .filter(fields::has)
                    .findFirst()
                    .ifPresent(n -> fields.report(
                            Code.BAD_FIELD,
                            fields.spanOfField(n),
                            "Only a table of a database has " + n + ".",
                            "Name the table."));
            return Optional.empty();
        }
        String mode = fields.choice("mode", List.of("create", "replace", "append"));
        if (fields.has("replace")) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("replace"),
                    "A table is replaced by its mode.",
                    "Write `mode: replace` instead.");
        }
        String variable = fields.text("password_from", "");
        if (!variable.matches("|[A-Za-z_][A-Za-z0-9_]*")) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("password_from"),
                    "`password_from` is the name of a variable of the system, and no password.",
                    "Write BRINDLE_PASSWORD, say, and set that variable before Fix Shelf is started.");
        }
        return table.map(t -> new JobPage.ToTable(t, mode, fields.text("user", ""), variable));
    }

    private void report(Code code, Span span, String what, String todo) {
        problems.add(Problem.error(code, new Problem.Where(source, span), what, todo));
    }
}
