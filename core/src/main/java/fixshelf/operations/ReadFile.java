package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Line;
import fixshelf.plan.Meaning;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.ValueKinds;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import java.util.List;
import java.util.Set;

/// The rows of a file that no page describes.
final class ReadFile extends BuiltIn {
    private static final List<Blank<?>> BLANKS = List.of(
            Blank.needed(
                    "file",
                    ValueKinds.TEXT,
                    "The file, relative to the shelf, or the address of a database server or a page of the web."),
            Blank.usually(
                    "separator",
                    ValueKinds.word(List.of(",", ";", "|", "\t"), s -> ReadOptions.isSeparator(s.replace("\\t", "\t"))),
                    ",",
                    "One character, or several that stand together; none where a line is one field."),
            Blank.usually("quote", ValueKinds.sign("\"", "'", ""), "\"", "One character, or none."),
            Blank.usually(
                    "encoding",
                    ValueKinds.word(ReadOptions.ENCODINGS, ReadOptions::isEncoding),
                    "utf-8",
                    "As utf-8, windows-1252, latin-1."),
            Blank.usually("heading", ValueKinds.FLAG, "true", "Whether the first row holds the names."),
            Blank.optional("null_words", ValueKinds.TEXTS, "Values that mean missing."),
            Blank.optional(
                    "bad_rows", ValueKinds.choice("stop", "leave_out"), "What happens to rows of another shape."),
            Blank.optional(
                    "kind",
                    ValueKinds.word(ReadOptions.KINDS, ReadOptions.KINDS::contains),
                    "What kind of file it is, where that is not seen from it."),
            Blank.optional("sheet", ValueKinds.TEXT, "Of a workbook; usually the first that is shown."),
            Blank.optional("block", ValueKinds.TEXT, "Cells of a sheet, as B4:F40, or the name of a table."),
            Blank.optional(
                    "cell_errors",
                    ValueKinds.choice("missing", "text"),
                    "What becomes of cells of a workbook with an error; they are listed."),
            Blank.optional(
                    "dates",
                    ValueKinds.choice("dates", "serials"),
                    "Whether days of a workbook are written as days, or as the numbers that they are stored as."),
            Blank.optional("rows", ValueKinds.TEXT, "Names that lead to the list of rows in JSON, as report.visits."),
            Blank.optional(
                    "each",
                    ValueKinds.TEXT,
                    "A column of JSON whose list gives a row for each of its elements; usually a list stays text."),
            Blank.optional("table", ValueKinds.TEXT, "Of a database, a page or a PDF; usually the only one."),
            Blank.optional("query", ValueKinds.TEXT, "A SELECT over the tables of a database, instead of a table."),
            Blank.optional("places", ValueKinds.TEXTS, "Where each column begins in lines of text, from 1."),
            Blank.optional(
                    "page_heads",
                    ValueKinds.choice("keep", "leave_out"),
                    "Of printed pages: the page and its line become columns, and lines that stand on nearly every page stay, or not."),
            Blank.optional("pages", ValueKinds.TEXT, "Of a PDF, as 2 or 2-4; usually all."),
            Blank.optional("user", ValueKinds.TEXT, "Who reads from a server."),
            Blank.optional(
                    "password_from",
                    ValueKinds.TEXT,
                    "The variable of the system that holds the password; no page does."),
            Blank.usually(
                    "seconds",
                    ValueKinds.whole(1, 99_999),
                    "300",
                    "How long a server may take; 30 for a page of the web."),
            Blank.usually(
                    "keep",
                    ValueKinds.TEXT,
                    "live",
                    "How long a copy of what a server gave is good, as 12 hours; live: a new one for each run."));

    ReadFile() {
        super(
                Line.READ_FILE,
                "Read {file}",
                new Meaning(
                        "Begin with the rows of a file.",
                        "What stands in null_words is missing.",
                        "A field that is empty and not quoted is the empty text of null_words.",
                        "As in the file.",
                        "",
                        "Texts.",
                        "As in the heading.",
                        "The rows that do not fit.",
                        "The rows are a table, or a data frame, called like the file."),
                BLANKS,
                List.of());
    }

    /// Those of the kind of file that is read; of delimited text, where nothing says another kind.
    @Override
    public List<Blank<?>> blanksBeside(Line line) {
        String kind = line.written("kind")
                .flatMap(Written::texts)
                .map(List::getFirst)
                .or(() -> ReadOptions.kindOf(
                        line.written("file")
                                .flatMap(Written::texts)
                                .flatMap(t -> t.stream().findFirst())
                                .orElse(""),
                        f -> line.written(f).isPresent()))
                .orElse("delimited");
        return BLANKS.stream()
                .filter(b -> b.name().equals("kind")
                        || b.needed()
                        || ReadOptions.FIELDS.getOrDefault(kind, Set.of()).contains(b.name()))
                .toList();
    }

    @Override
    public Resolution resolve(Given given) {
        return Given.refused(
                Code.BAD_FIELD, "Only the first line reads a file itself.", "Make it a dataset, and read that here.");
    }
}
