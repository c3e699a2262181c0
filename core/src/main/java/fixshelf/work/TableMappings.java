package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.language.Names;
import fixshelf.plan.Line;
import fixshelf.plan.Planner;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.Shelf;
import fixshelf.source.DelimitedFile;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Arguments of a job's lines that take a mapping from a table: `MAP FROM dataset(key, value)`.
///
/// Two columns of a dataset of the shelf. Rows without a key say nothing. A key that comes twice with the same value
/// counts once; with two values it is a problem, since the answer would depend on the order of the rows.
final class TableMappings {
    static final int MOST_PAIRS = 10_000;

    private static final Pattern FROM = Pattern.compile(
            "\\s*MAP\\s+FROM\\s+(\\w+)\\s*\\(\\s*(\"[^\"]+\"|[^,\"]+?)\\s*,\\s*(\"[^\"]+\"|[^,\")]+?)\\s*\\)\\s*",
            Pattern.CASE_INSENSITIVE);

    private final Shelf shelf;
    private final Where where;

    private TableMappings(Shelf shelf, Where where) {
        this.shelf = shelf;
        this.where = where;
    }

    /// The lines with every such argument written out as a constant; one that cannot be is NULL, beside the problem.
    static Outcome<List<Planner.PlacedLine>> filled(Shelf shelf, List<Planner.PlacedLine> lines) {
        List<Problem> problems = new ArrayList<>();
        List<Planner.PlacedLine> filled = lines.stream()
                .map(l -> new Planner.PlacedLine(
                        new TableMappings(shelf, l.where()).filled(l.line(), problems), l.where()))
                .toList();
        return Outcome.of(filled, problems);
    }

    private Line filled(Line line, List<Problem> problems) {
        if (!(line instanceof Line.Apply apply)) {
            return line;
        }
        Map<String, String> arguments = new LinkedHashMap<>();
        apply.arguments().forEach((name, text) -> {
            Matcher from = FROM.matcher(text);
            Outcome<String> written = from.matches() ? mapping(from) : Outcome.of(text);
            problems.addAll(written.problems());
            arguments.put(name, written.value().orElse("NULL"));
        });
        return apply.withArguments(arguments);
    }

    private Outcome<String> mapping(Matcher from) {
        String dataset = from.group(1);
        return Datasets.open(shelf, dataset).then(source -> column(source, from.group(2))
                .then(key -> column(source, from.group(3)).then(value -> pairs(source, dataset, key, value))));
    }

    private Outcome<String> column(DelimitedFile source, String written) {
        String name = written.replace("\"", "");
        List<String> names = source.columns().stream().map(Column::name).toList();
        return names.stream()
                .filter(name::equalsIgnoreCase)
                .findFirst()
                .map(Outcome::of)
                .orElseGet(() -> problem(
                        Code.NO_SUCH_COLUMN,
                        "There is no column " + name + " in " + source.file().getFileName() + ".",
                        Names.suggest(name, names, "Columns: " + String.join(", ", names) + ".")));
    }

    private Outcome<String> pairs(DelimitedFile source, String dataset, String key, String value) {
        try (Loaded loaded = Loaded.open(source, List.of())) {
            loaded.read(Long.MAX_VALUE, relation -> loaded.session()
                    .run("CREATE OR REPLACE TABLE pairs AS SELECT " + DuckSession.name(key)
                            + " AS k, " + DuckSession.name(value)
                            + " AS v, min(rowid) AS place FROM (SELECT row_number() OVER ()"
                            + " AS rowid, * FROM " + relation + ") WHERE k IS NOT NULL GROUP BY k, v"));
            boolean broken = loaded.careful().filter(c -> c.badCount() > 0).isPresent();
            if (broken && !source.options().leaveOutBadRows()) {
                return Outcome.failed(loaded.careful().get().problem(source));
            }
            Grid twice = loaded.session()
                    .query("SELECT k FROM pairs GROUP BY k HAVING count(*) > 1 ORDER BY min(place) LIMIT 5");
            if (!twice.rows().isEmpty()) {
                String keys = twice.rows().stream()
                        .map(r -> Literals.print(r.getFirst()))
                        .collect(Collectors.joining(", "));
                return problem(
                        Code.ARGUMENTS,
                        "In " + dataset + " these have more than one " + value + ": " + keys + ".",
                        "Mend the table: each " + key + " needs one " + value + ".");
            }
            long count = loaded.session().number("SELECT count(*) FROM pairs");
            if (count == 0 || count > MOST_PAIRS) {
                return problem(
                        Code.ARGUMENTS,
                        String.format("%s gives %,d pairs; a mapping takes 1 to %,d.", dataset, count, MOST_PAIRS),
                        "Name a smaller table.");
            }
            Map<Object, @Nullable Object> pairs = new LinkedHashMap<>();
            loaded.session()
                    .query("SELECT k, v FROM pairs ORDER BY place")
                    .rows()
                    .forEach(r -> pairs.put(Objects.requireNonNull(r.get(0)), r.get(1)));
            return Outcome.of(Literals.print(pairs));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private <T> Outcome<T> problem(Code code, String what, String todo) {
        return Outcome.failed(Problem.error(code, where, what, todo));
    }
}
