package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Visible;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Follows a cell of a table in a job back to the file, and its row on to the end.
public final class CellLives {
    private final Preview preview;
    private final PlannedJob job;
    private final RowPaths paths;
    private final Deque<CellLife.Stage> stages = new ArrayDeque<>();
    private String file = "";
    /// What tells of its life in another table, before the line that took it from there.
    private Runnable before = () -> {};

    private CellLives(Preview preview, PlannedJob job) {
        this.preview = preview;
        this.job = job;
        this.paths = new RowPaths(preview, job);
    }

    /// The life of the cell of a row after a line.
    ///
    /// @param line its number
    /// @param row the place of the row in the table after it, from 1
    /// @param column the name of a column there
    public static Outcome<CellLife> of(Preview preview, PlannedJob job, int line, long row, String column) {
        return Preview.guarded(() -> {
            Step step = job.plan().steps().get(line - 1);
            Field field = step.after()
                    .shape()
                    .find(column)
                    .orElseThrow(() -> new ProblemException(Problem.about(
                            Code.NO_SUCH_COLUMN,
                            job.job().name(),
                            "There is no column " + column + " at line " + line + ".",
                            "")));
            long there = preview.session()
                    .number("SELECT count(*) FROM " + preview.tableOf(job, line) + " WHERE p = " + (row - 1));
            if (there == 0) {
                throw new ProblemException(Problem.about(
                        Code.NO_SUCH,
                        job.job().name(),
                        "There is no row " + row + " after line " + line + ".",
                        "Rows keep their places when others leave; preview tells them."));
            }
            CellLives lives = new CellLives(preview, job);
            lives.back(step, row - 1, field);
            lives.on(step, row);
            return new CellLife(field.name(), lives.file, new ArrayList<>(lives.stages));
        });
    }

    private void back(Step from, long row, Field asked) {
        long place = row;
        Field field = asked;
        for (Step step = from; ; step = job.plan().before(step.number())) {
            Optional<Field> here = step.after().shape().find(field.id());
            List<@Nullable Object> found = row(step, place, here);
            Object value = found.get(1);
            if (step.number() == 1 && job.plan().readsJob() && here.isPresent()) {
                // The job that is read is the first that was asked for.
                PlannedJob read = job.read().getFirst();
                Outcome<Preview> opened = Preview.open(read.source(), preview.staged(), preview.rows());
                opened.value().ifPresent(p -> p.choose(preview.sample()));
                intoJob(read, opened, here.get(), place);
                return;
            }
            if (step.number() == 1) {
                add(new CellLife.Stage(1, here.isPresent(), value, null, false, here.isPresent() ? "read" : ""));
                file = source(field, found.getFirst());
                return;
            }
            Step last = job.plan().before(step.number());
            Optional<Field> there = last.after().shape().find(field.id());
            Optional<Field> taken =
                    there.isEmpty() && here.isPresent() ? taken(step, place, here.get()) : Optional.empty();
            if (found.getFirst() == null) {
                String words =
                        step.rows() == Lineage.Rows.MERGED ? merged(step, place, last) : below(step, place, here);
                add(new CellLife.Stage(step.number(), here.isPresent(), value, null, false, words));
                before.run();
                return;
            }
            long origin = ((Number) found.getFirst()).longValue();
            Object was = row(last, origin, there).get(1);
            boolean changed = there.isPresent() && !String.valueOf(was).equals(String.valueOf(value));
            String said = taken.isPresent()
                    ? "out of the column " + taken.get().name()
                    : there.isEmpty() && here.isPresent()
                            ? brought(step, place, origin, here.get()).orElse("made by this line")
                            : words(step, last, here, there);
            String words = changed && said.equals("as it was") ? "" : said;
            add(new CellLife.Stage(step.number(), here.isPresent(), value, was, changed, words));
            place = origin;
            if (taken.isPresent()) {
                field = taken.get();
            } else if (there.isEmpty() && here.isPresent()) {
                before.run();
                return;
            }
        }
    }

    /// Out of which row of another table a line took a new cell, and the life of that cell there.
    private Optional<String> brought(Step step, long place, long origin, Field made) {
        for (Relation part : step.after().parts()) {
            if (!(part instanceof Relation.Join join)) {
                continue;
            }
            Optional<Field> theirs = join.taken().stream()
                    .filter(t -> t.made().id() == made.id())
                    .map(Relation.Taken::field)
                    .findFirst();
            if (theirs.isPresent()) {
                // Of several matches, rows stand in the order of the other table.
                long nth = preview.session()
                        .number("SELECT count(*) FROM " + preview.tableOf(job, step.number()) + " WHERE o = " + origin
                                + " AND p < " + place);
                String met = join.on().stream()
                        .map(p -> "l." + p.left().key() + (p.missingMeets() ? " IS NOT DISTINCT FROM " : " = ") + "r."
                                + p.right().key())
                        .collect(Collectors.joining(" AND "));
                return Optional.of(place("SELECT r.p FROM (" + rows(join.left()) + ") l JOIN ("
                                + rows(join.right()) + ") r ON " + met + " WHERE l.p = " + origin
                                + " ORDER BY r.p LIMIT 1 OFFSET " + nth)
                        .map(p -> outOf(step, join.right(), p, theirs.get()))
                        .orElse("no row there has its key"));
            }
        }
        return Optional.empty();
    }

    /// Out of which row of another table a row came that a line put below its own.
    private String below(Step step, long place, Optional<Field> here) {
        String came = "the row came from another table";
        if (here.isEmpty()
                || !(unwrapped(step.after()) instanceof Relation.Union union)
                || union.tables().size() != 2) {
            return came;
        }
        Relation other = union.tables().getLast();
        int at = IntStream.range(0, union.shape().fields().size())
                .filter(i -> union.shape().fields().get(i).id() == here.get().id())
                .findFirst()
                .orElse(-1);
        if (at < 0) {
            return came;
        }
        long nth = preview.session()
                .number("SELECT count(*) FROM " + preview.tableOf(job, step.number()) + " WHERE o IS NULL AND p < "
                        + place);
        return place("SELECT p FROM (" + rows(other) + ") ORDER BY p LIMIT 1 OFFSET " + nth)
                .map(p -> "the row came "
                        + outOf(step, other, p, other.shape().fields().get(at)))
                .orElse(came);
    }

    /// A query for a table that is worked out of the lines of the job, with its place in `p`.
    private String rows(Relation relation) {
        return Rows.beside(relation, preview.bases(job));
    }

    private static Relation unwrapped(Relation relation) {
        return relation instanceof Relation.Pick pick ? unwrapped(pick.from()) : relation;
    }

    private Optional<Long> place(String query) {
        return preview.session().query(query).rows().stream()
                .findFirst()
                .map(r -> ((Number) Objects.requireNonNull(r.getFirst())).longValue());
    }

    /// Where a cell of another table stands, in words; its life there stands before this line.
    private String outOf(Step step, Relation other, long place, Field field) {
        Optional<PlannedJob> read = job.otherRead(step);
        if (read.filter(r ->
                        r.plan().result().after().shape().find(field.name()).isEmpty())
                .isPresent()) {
            return String.format(
                    "out of %s, row %,d, where it has no cell",
                    job.otherOf(step).orElse(""), place + 1);
        }
        if (read.isPresent()) {
            // Of what is brought in, all rows are there, however few of the others are looked at.
            before = () -> intoJob(
                    read.get(), Preview.open(read.get().source(), Long.MAX_VALUE, Long.MAX_VALUE), field, place);
            return String.format("out of %s, row %,d", job.otherOf(step).orElse(""), place + 1);
        }
        Relation from = other;
        Field now = field;
        while (!from.inputs().isEmpty()) {
            if (from instanceof Relation.Union
                    || from instanceof Relation.Group
                    || from instanceof Relation.Unpivot
                    || from instanceof Relation.Sort
                    || from instanceof Relation.Join join && join.meeting() != Relation.Meeting.WITHOUT) {
                return "out of another table";
            }
            int id = now.id();
            from = from.inputs().getFirst();
            Optional<Field> there = from.shape().find(id);
            if (there.isEmpty()) {
                return "out of another table, where it has no cell";
            }
            now = there.get();
        }
        if (from instanceof Relation.Result(int line, var _)) {
            Field there = now;
            before = () -> intoLine(line, place, there);
            return String.format("out of line %d, row %,d", line, place + 1);
        }
        Relation.Source source = (Relation.Source) from;
        String file = Optional.ofNullable(job.others().get(source.name()))
                .map(f -> f.copied()
                        .map(c -> c.from())
                        .orElse(String.valueOf(f.file().getFileName())))
                .orElse(source.name());
        int column = source.shape().fields().indexOf(now) + 1;
        this.file = String.format("%s, row %,d, field %d", file, place + 1, column);
        return String.format("out of %s, row %,d, %s", source.name(), place + 1, now.name());
    }

    /// The life of a cell up to another line of this job.
    private void intoLine(int line, long place, Field field) {
        CellLife life = of(preview, job, line, place + 1, field.name()).get();
        List<CellLife.Stage> before = life.stages();
        for (int i = before.size() - 1; i >= 0; i--) {
            if (before.get(i).line() <= line) {
                add(before.get(i));
            }
        }
        file = life.file();
    }

    /// The rest of its life, in another job that this one reads.
    private void intoJob(PlannedJob read, Outcome<Preview> opened, Field field, long place) {
        if (!opened.isPresent()) {
            throw new ProblemException(opened.problems().getFirst());
        }
        try (Preview there = opened.get()) {
            CellLife life = of(there, read, read.plan().resultLine(), place + 1, field.name())
                    .get();
            List<CellLife.Stage> before = life.stages();
            for (int i = before.size() - 1; i >= 0; i--) {
                CellLife.Stage stage = before.get(i);
                if (stage.line() <= read.plan().resultLine()) {
                    add(stage.in(read.job()));
                }
            }
            file = life.file();
        }
    }

    /// The column before a line out of which it took a new cell as it stood: one of those that became rows, or one that
    /// was copied.
    private Optional<Field> taken(Step step, long place, Field made) {
        for (Relation part : step.after().parts()) {
            if (part instanceof Relation.Unpivot unpivot) {
                int at = IntStream.range(0, unpivot.values().size())
                        .filter(i -> unpivot.values().get(i).id() == made.id())
                        .findFirst()
                        .orElse(-1);
                Optional<Field> name = step.after().shape().find(unpivot.name().id());
                if (at >= 0 && name.isPresent()) {
                    int set = unpivot.names()
                            .indexOf(String.valueOf(row(step, place, name).get(1)));
                    return set < 0
                            ? Optional.empty()
                            : Optional.of(unpivot.sets().get(set).get(at));
                }
            } else if (part instanceof Relation.Compute compute) {
                Optional<Field> copied = compute.cells().stream()
                        .filter(c -> c.made().id() == made.id() && c.value() instanceof Expr.Name)
                        .flatMap(c -> compute.from().shape().fields().stream()
                                .filter(f -> f.key().equals(((Expr.Name) c.value()).name())))
                        .findFirst();
                if (copied.isPresent()) {
                    return copied;
                }
            }
        }
        return Optional.empty();
    }

    private void add(CellLife.Stage stage) {
        stages.addFirst(stage);
    }

    private static String words(Step step, Step last, Optional<Field> here, Optional<Field> there) {
        if (there.isEmpty()) {
            return here.isPresent() ? "made by this line" : "";
        }
        if (here.isPresent() && !here.get().name().equals(there.get().name())) {
            return "was called " + there.get().name();
        }
        boolean computes = here.filter(h -> step.replaced().stream().anyMatch(r -> r.id() == h.id()))
                .isPresent();
        if (step.isIdle()) {
            return step.goesOn() ? "goes on from line " + last.number() : "the line does nothing";
        }
        return computes ? "as it was" : step.replaced().isEmpty() ? "the row stays" : "not one of its columns";
    }

    /// Where a row came from, and the value of a field in it.
    private List<@Nullable Object> row(Step step, long place, Optional<Field> field) {
        String value = field.map(Field::key).orElse("NULL");
        List<List<@Nullable Object>> rows = preview.session()
                .query("SELECT o, " + value + " FROM " + preview.tableOf(job, step.number()) + " WHERE p = " + place)
                .rows();
        return rows.isEmpty() ? Arrays.asList(null, null) : rows.getFirst();
    }

    /// Of which rows a group was made.
    private String merged(Step step, long place, Step last) {
        List<Long> rows = paths.rowsOfGroup(step, place);
        String some = rows.stream().limit(5).map(r -> String.format("%,d", r)).collect(Collectors.joining(", "));
        return "made of " + (rows.size() == 1 ? "row " : String.format("%,d rows: ", rows.size())) + some
                + (rows.size() > 5 ? ", …" : "") + " at line " + last.number();
    }

    private String source(Field field, @Nullable Object origin) {
        List<Field> read = job.plan().read().shape().fields();
        int at = -1;
        for (int i = 0; i < read.size(); i++) {
            at = read.get(i).id() == field.id() ? i : at;
        }
        return at < 0 || origin == null || job.plan().readsJob()
                ? ""
                : String.format(
                        "%s, row %,d, field %d",
                        job.source().file().getFileName(), ((Number) origin).longValue() + 1, at + 1);
    }

    /// What the lines after it do with the row.
    private void on(Step from, long row) {
        List<Long> places = List.of(row - 1);
        List<Integer> path = job.plan().path();
        int at = path.indexOf(from.number());
        for (int line : at < 0 ? List.<Integer>of() : path.subList(at + 1, path.size())) {
            RowPath.Stop stop = paths.stop(job.plan().steps().get(line - 1), places);
            String words = stop.isGone()
                    ? "the row leaves"
                    : stop.merged()
                            ? "the row is merged into row " + stop.places().getFirst()
                            : stop.places().size() > 1
                                    ? "the row becomes " + stop.places().size() + " rows"
                                    : stop.changes().isEmpty()
                                            ? "the row stays"
                                            : "the row stays, and "
                                                    + stop.changes().stream()
                                                            .map(c -> c.column() + " becomes "
                                                                    + Visible.markOddities(String.valueOf(
                                                                            c.now() == null ? "missing" : c.now())))
                                                            .collect(Collectors.joining(", "));
            stages.addLast(new CellLife.Stage(line, false, null, null, false, words));
            places = stop.places().stream().map(p -> p - 1).toList();
            if (stop.isGone() || stop.merged()) {
                return;
            }
        }
    }
}
