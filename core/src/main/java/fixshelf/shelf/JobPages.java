package fixshelf.shelf;

import fixshelf.plan.Columns;
import fixshelf.plan.Line;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage.Output;
import fixshelf.shelf.JobPage.PlacedLine;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Reads the page of a job.
public final class JobPages {
    static final String EVERY_TEXT = "every text column";

    private final SourceText source;
    private final List<String> nullWords;
    private final List<Problem> problems = new ArrayList<>();

    private JobPages(SourceText source, List<String> nullWords) {
        this.source = source;
        this.nullWords = nullWords;
    }

    public static JobPage read(Path file, SourceText source, List<String> nullWords) {
        return new JobPages(source, nullWords).page(file);
    }

    private JobPage page(Path file) {
        String fallback = file.getFileName().toString().replaceFirst("\\.ya?ml$", "");
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        fields.ifPresent(f -> f.allow(Set.of("job", "title", "about", "parameters", "lines", "outputs")));
        List<PlacedLine> lines = fields.map(f -> f.each("lines", this::line)).orElse(List.of());
        if (fields.isPresent() && (lines.isEmpty() || !lines.getFirst().line().isRead())) {
            Span at = lines.isEmpty() ? new Span(0, 0) : lines.getFirst().span();
            report(
                    Code.BAD_FIELD,
                    at,
                    "The first line of a job reads something.",
                    "Begin with `- read: file` or `- dataset: name`.");
        }
        String name = fields.flatMap(f -> f.text("job")).orElse(fallback);
        fields.ifPresent(f -> f.wantName("job", name, "Write visits_clean, say."));
        return new JobPage(
                file,
                source,
                name,
                fields.map(f -> f.text("title", name.replace('_', ' '))).orElse(name),
                fields.map(f -> f.text("about", "")).orElse(""),
                fields.map(f -> f.pairs("parameters")).orElse(Map.of()),
                lines,
                fields.map(f -> f.each("outputs", this::output)).orElse(List.of()),
                List.copyOf(problems));
    }

    private Optional<PlacedLine> line(Yaml.Fields fields) {
        return operation(fields).map(l -> new PlacedLine(l, fields.text("reason", ""), fields.span()));
    }

    private Optional<Line> operation(Yaml.Fields fields) {
        if (fields.has("read")) {
            return read(fields);
        }
        if (fields.has("dataset")) {
            fields.allow(Set.of("dataset", "reason"));
            return Optional.of(new Line.ReadDataset(fields.required("dataset", "Name a dataset.")));
        }
        if (fields.has("fix")) {
            fields.allow(Set.of("fix", "columns", "with", "strict", "reason"));
            return Optional.of(new Line.Apply(
                    fields.required("fix", "Name a fix."),
                    columns(fields),
                    fields.pairs("with"),
                    fields.flag("strict", false) ? Line.Lost.STOPS : Line.Lost.COUNTED));
        }
        if (fields.has("drop_repeats")) {
            return Optional.of(dropRepeats(fields));
        }
        if (fields.has("choose")) {
            fields.allow(Set.of("choose", "reason"));
            return Optional.of(new Line.Choose(wantNames(fields, "choose")));
        }
        if (fields.has("drop")) {
            fields.allow(Set.of("drop", "reason"));
            return Optional.of(new Line.Drop(wantNames(fields, "drop")));
        }
        if (fields.has("rename")) {
            fields.allow(Set.of("rename", "reason"));
            return Optional.of(new Line.Rename(fields.pairs("rename")));
        }
        fields.report(
                Code.BAD_FIELD,
                fields.span(),
                "This line says no operation.",
                "Begin it with read, dataset, fix, drop_repeats, choose, drop or rename.");
        return Optional.empty();
    }

    private Optional<Line> read(Yaml.Fields fields) {
        Set<String> known = new HashSet<>(ReadFields.NAMES);
        known.add("reason");
        fields.allow(known);
        return Optional.of(new Line.ReadFile(ReadFields.read(fields, nullWords)));
    }

    private Columns columns(Yaml.Fields fields) {
        if (fields.isMapping("columns")) {
            Yaml.Fields selection = fields.fields("columns").orElseThrow();
            selection.allow(Set.of("all_but"));
            return new Columns.AllBut(selection.texts("all_but"));
        }
        List<String> names = fields.texts("columns");
        if (names.equals(List.of(EVERY_TEXT))) {
            return new Columns.EveryText();
        }
        if (names.isEmpty()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.span(),
                    "Which columns?",
                    "Add `columns: [name]` or `columns: every text column`.");
        }
        return new Columns.Named(names);
    }

    private Line dropRepeats(Yaml.Fields fields) {
        fields.allow(Set.of("drop_repeats", "keep", "by", "reason"));
        String keep = fields.text("keep", "");
        if (!Set.of("first", "last").contains(keep)) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("keep"),
                    "Which row of each group stays?",
                    "Write `keep: first` or `keep: last`.");
        }
        List<String> keys = fields.texts("drop_repeats").stream()
                .filter(k -> !k.equals("all columns"))
                .toList();
        return new Line.DropRepeats(keys, keep.equals("last") ? Line.Keep.LAST : Line.Keep.FIRST, fields.texts("by"));
    }

    private List<String> wantNames(Yaml.Fields fields, String field) {
        List<String> names = fields.texts(field);
        if (names.isEmpty()) {
            fields.report(Code.BAD_FIELD, fields.span(), "Which columns?", "Write `" + field + ": [name, name]`.");
        }
        return names;
    }

    private Optional<Output> output(Yaml.Fields fields) {
        fields.allow(Set.of("write", "replace"));
        String path = fields.required("write", "Name a file: `write: out/clean.parquet`.");
        return Optional.of(new Output(path, fields.flag("replace", false), fields.span()));
    }

    private void report(Code code, Span span, String what, String todo) {
        problems.add(Problem.error(code, new Problem.Where(source, span), what, todo));
    }
}
