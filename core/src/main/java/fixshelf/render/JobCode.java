package fixshelf.render;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Column;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// A job as languages write it: lines that work on tables with the rows of its sources.
///
/// @param about what the job is for, in a sentence
/// @param sources the tables, or data frames, with their columns as text; the first is what the lines work on
/// @param lines the lines after the one that reads
public record JobCode(String name, String about, List<Source> sources, List<Line> lines) {
    public JobCode {
        sources = List.copyOf(sources);
        lines = List.copyOf(lines);
    }

    /// A table that a job reads.
    public record Source(String name, List<Column> columns) {
        public Source {
            columns = List.copyOf(columns);
        }
    }

    /// @param number as it is shown, from 1
    /// @param sentence what it does, in plain words
    public record Line(int number, String sentence, Step step) {
        /// What code says that stops at its check.
        public String stop() {
            return number + ". " + sentence;
        }
    }

    /// Whether a line needs to know the place of each row in its source.
    public boolean needsPlaces() {
        return lines.stream()
                .anyMatch(l -> Lineage.setsOrder(l.step().after())
                        || l.step().reports().stream().anyMatch(r -> r.breaks() && Lineage.setsOrder(r.relation())));
    }

    /// The lines that others come back to.
    public Set<Integer> namedLines() {
        Set<Integer> named = new HashSet<>();
        lines.forEach(line -> parts(line)
                .filter(r -> r instanceof Relation.Result result && result.line() != line.number() - 1)
                .forEach(r -> named.add(((Relation.Result) r).line())));
        return named;
    }

    /// Whether a line brings in the rows of the first source once more.
    public boolean readsFirstAgain() {
        return lines.stream()
                .flatMap(JobCode::parts)
                .anyMatch(r -> r instanceof Relation.Source(String name, var _) && name.equals(first().name()));
    }

    /// All tables that a line, and what is told beside it, is worked out of.
    private static Stream<Relation> parts(Line line) {
        return Stream.concat(
                        Stream.of(line.step().after()),
                        line.step().reports().stream().map(Operation.Report::relation))
                .flatMap(r -> r.parts().stream());
    }

    public Source first() {
        return sources.getFirst();
    }

    /// The columns that come out.
    public List<Column> result() {
        return lines.isEmpty() ? first().columns() : lines.getLast().step().columns();
    }

    /// The tables that it reads, in words: `a, b and c`.
    public String sourceNames() {
        return sources.stream().map(Source::name).collect(Collectors.joining(", "));
    }

    /// Why a language cannot say a line, with the line's number and words.
    public static Problem refused(Line line, Problem why) {
        return new Problem(
                why.code(),
                why.severity(),
                why.where(),
                "Line " + line.number() + ", " + line.sentence() + ": " + why.what(),
                why.todo());
    }

    /// An expression over fields, with the names that users see.
    public static Expr named(Expr expr, Relation from) {
        Map<String, Expr> names = new HashMap<>();
        from.shape().fields().forEach(f -> names.put(f.key(), new Expr.Name(f.name(), f.type())));
        return Formula.renamed(expr, n -> names.getOrDefault(n.name(), n));
    }

    /// A name that no column has at any line, for the place of each row in the source.
    public String placeName() {
        return free("row_no");
    }

    /// A name that starts with `wanted`, and is no column at any line, and no table.
    public String free(String wanted) {
        String name = wanted;
        while (isTaken(name)) {
            name = name + "_";
        }
        return name;
    }

    private boolean isTaken(String name) {
        Stream<String> columns = lines.stream()
                .flatMap(l -> l.step().after().parts().stream())
                .map(Relation::shape)
                .flatMap(s -> s.fields().stream())
                .map(Field::name);
        Stream<String> tables = sources.stream()
                .flatMap(s ->
                        Stream.concat(Stream.of(s.name()), s.columns().stream().map(Column::name)));
        return Stream.concat(columns, tables)
                .anyMatch(n -> n.toLowerCase(Locale.ROOT).equals(name));
    }
}
