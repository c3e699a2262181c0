package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.language.Names;
import fixshelf.plan.Context;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.DelimitedFile;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// The datasets of a shelf as tables that lines bring in, and as mappings.
final class JobSources implements Context.Sources {
    static final int MOST_PAIRS = 10_000;

    private final Shelf shelf;
    private final Map<String, DelimitedFile> files = new LinkedHashMap<>();

    JobSources(Shelf shelf) {
        this.shelf = shelf;
    }

    /// The files of the datasets that were asked for.
    Map<String, DelimitedFile> files() {
        return files;
    }

    @Override
    public List<String> names() {
        return shelf.datasets().stream().map(DatasetPage::name).toList();
    }

    @Override
    public Outcome<Relation> find(String name, Context.Ids ids) {
        return Datasets.open(shelf, name).map(file -> {
            files.put(name, file);
            return new Relation.Source(
                    name,
                    new Shape(file.columns().stream()
                            .map(c -> new Field(ids.next(), c))
                            .toList()));
        });
    }

    @Override
    public Outcome<Map<String, @Nullable String>> pairs(String dataset, String from, String to) {
        return Datasets.open(shelf, dataset).then(source -> column(source, from)
                .then(key -> column(source, to).then(value -> pairs(source, dataset, key, value))));
    }

    private static Outcome<String> column(DelimitedFile source, String name) {
        List<String> names = source.columns().stream().map(Column::name).toList();
        Optional<String> found = names.stream().filter(name::equalsIgnoreCase).findFirst();
        return found.map(Outcome::of)
                .orElseGet(() -> problem(
                        Code.NO_SUCH_COLUMN,
                        "There is no column " + name + " in " + source.file().getFileName() + ".",
                        Names.suggest(name, names, "Columns: " + String.join(", ", names) + ".")));
    }

    private static Outcome<Map<String, @Nullable String>> pairs(
            DelimitedFile source, String dataset, String key, String value) {
        try (Loaded loaded = Loaded.open(source, List.of())) {
            loaded.read(Long.MAX_VALUE, relation -> loaded.session()
                    .run("CREATE OR REPLACE TABLE pairs AS SELECT k, v, min(place) AS place FROM (SELECT "
                            + DuckSession.name(key) + " AS k, " + DuckSession.name(value)
                            + " AS v, row_number() OVER () AS place FROM " + relation
                            + ") WHERE k IS NOT NULL GROUP BY k, v"));
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
            Map<String, @Nullable String> pairs = new LinkedHashMap<>();
            loaded.session()
                    .query("SELECT k, v FROM pairs ORDER BY place")
                    .rows()
                    .forEach(r -> pairs.put((String) Objects.requireNonNull(r.get(0)), (@Nullable String) r.get(1)));
            return Outcome.of(pairs);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private static <T> Outcome<T> problem(Code code, String what, String todo) {
        return Outcome.failed(Problem.about(code, "blank", what, todo));
    }
}
