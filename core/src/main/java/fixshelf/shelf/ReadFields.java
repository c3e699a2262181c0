package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// The fields that say how a file is read; the same in datasets and in the first line of a job.
final class ReadFields {
    static final Set<String> NAMES = Set.of(
            "read",
            "separator",
            "quote",
            "encoding",
            "heading",
            "null_words",
            "bad_rows",
            "kind",
            "sheet",
            "block",
            "cell_errors",
            "dates",
            "rows",
            "each",
            "places",
            "page_heads",
            "table",
            "query",
            "user",
            "password_from",
            "seconds",
            "keep",
            "pages",
            "columns",
            "values",
            "missing");

    /// Those that a dataset has and a line has not: there, rows are typed in with an operation.
    static final Set<String> OF_DATASETS = Set.of("columns", "values", "missing");

    private ReadFields() {}

    static ReadOptions read(Yaml.Fields fields, List<String> nullWords) {
        if (fields.text("kind", fields.has("values") ? "typed" : "").equals("typed")) {
            return TypedTable.read(fields);
        }
        ReadOptions plain = ReadOptions.of(fields.required("read", "Name the file: `read: data/visits.csv`."));
        String separator = fields.text("separator", ",").replace("\\t", "\t");
        if (!ReadOptions.isSeparator(separator)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("separator"),
                    "A separator is one character or up to ten, none of them a line break or a quote.",
                    "Write \",\", \";\", \"\\t\", \"|\" or \"||\"; \"\" where each line is one field.");
            separator = ",";
        }
        String quote = fields.text("quote", "\"");
        if (quote.length() > 1) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("quote"),
                    "A quote is one character, or none.",
                    "Write '\"' or \"\".");
            quote = "\"";
        }
        String encoding = fields.text("encoding", "utf-8").toLowerCase(Locale.ROOT);
        if (!ReadOptions.isEncoding(encoding)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("encoding"),
                    "There is no encoding " + encoding + " here.",
                    "Known: " + String.join(", ", ReadOptions.ENCODINGS) + ", and every other that Java knows.");
            encoding = "utf-8";
        }
        String badRows = fields.choice("bad_rows", List.of("stop", "leave_out"));
        List<String> words = fields.has("null_words") ? fields.texts("null_words") : nullWords;
        ReadOptions options = plain.withShape(separator, quote, encoding, fields.flag("heading", true))
                .withNullWords(words)
                .withLeaveOutBadRows(badRows.equals("leave_out"));
        Outcome<Optional<ReadOptions.Form>> form = FormFields.form(
                plain.path(),
                fields::has,
                name -> fields.has(name) ? Optional.of(fields.text(name, "")) : Optional.empty(),
                fields.texts("places"));
        form.problems()
                .forEach(p -> fields.report(
                        Code.BAD_FIELD, fields.spanOfField(p.where().source().name()), p.what(), p.todo()));
        return form.value().flatMap(f -> f).map(options::withForm).orElse(options);
    }
}
