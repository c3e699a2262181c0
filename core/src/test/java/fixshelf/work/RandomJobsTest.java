package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.check.CaseResult;
import fixshelf.engine.DuckSession;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.Grid;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixOfLines;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Column;
import fixshelf.work.RelationModel.Row;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Jobs put together at random: what a preview shows of each line is what the line means in plain Java, every row is
/// accounted for, and a run reports and writes the same.
public class RandomJobsTest {
    /// Others are tried with `-Djobs.seed=…`, more of them with `-Djobs.count=…`.
    private static final long SEED = Long.getLong("jobs.seed", 3);

    private static final int JOBS = Integer.getInteger("jobs.count", 12);
    private static final int LINES = 6;

    /// Columns that have the names of hidden things; keys that differ little; texts that are missing, empty or blank.
    private static final String DATA = """
            k,rowid,v,select,n
            a,1,x,p,3
            A,2,,q,1
            a ,3,x,,
            a,4,y,p,2
            ,5,x,q,10
            ,6, ,q,2
            b,7,"","r s",3
            b,7,z,"r,s",x
            """;

    private static final String LIST = "k,p,line_2\na,one,1\na,two,2\nb,three,3\nc,four,4\n,five,5\n";

    @TempDir
    Path root;

    @Test
    void everyLineMeansWhatItMeansInJavaAndEveryRowIsAccountedFor() throws Exception {
        holdInJava(SEED, JOBS);
    }

    /// As above, with many more jobs.
    @Tag("proof")
    @Test
    void manyLinesMeanTheSame() throws Exception {
        holdInJava(SEED + 7, 60);
    }

    private void holdInJava(long seed, int jobs) throws Exception {
        Random random = new Random(seed);
        Map<String, Integer> tried = new HashMap<>();
        for (int i = 0; i < jobs; i++) {
            JobPage job = job(random, tried);
            hold(job, i % 5 == 0);
        }
        assertThat(tried.keySet()).hasSizeGreaterThan(jobs >= 60 ? 25 : jobs >= 20 ? 15 : 5);
        assertThat(refused).as("lines that are no table fix").hasSizeLessThanOrEqualTo(jobs / 20);
        assertThat(calls).as("calls of table fixes").isGreaterThan(jobs / 5);
    }

    /// No line of those is there for nothing: each fits over the file, or over columns that another line makes.
    @Test
    void everyLineFitsSomewhere() throws Exception {
        List<String> begins = List.of(
                "",
                "  - keep_rows: v IS NOT NULL\n    name: kept\n",
                "  - read_as: {n: \"decimal(9,2)\"}\n",
                "  - number_rows: line_2\n",
                "  - read: list\n    name: second\n  - go_on_from: begin\n",
                "  - set: [n]\n    to: NULLIF(it, 'x')\n  - read_as: {n: integer}\n");
        List<String> never = new ArrayList<>();
        JobPage empty = job(new Random(0), new HashMap<>(), 0);
        for (String line : RandomLines.OF_ALL_KINDS) {
            List<String> problems = new ArrayList<>();
            for (String begin : begins) {
                JobPage one = JobPages.read(
                        empty.file(),
                        new SourceText(
                                "job",
                                empty.source().text().replace("outputs:", begin + "  - " + line + "\noutputs:")));
                PlannedJob.draft(shelf, one, Map.of()).problems().stream()
                        .findFirst()
                        .ifPresent(p -> problems.add(p.what()));
            }
            if (problems.size() == begins.size()) {
                never.add(line + ": " + problems);
            }
        }
        assertThat(never).isEmpty();
    }

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void everyLanguageGivesTheSameRows(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        holdIn(engine, root, Integer.getInteger("jobs.count", 6));
    }

    /// As above, with many more jobs.
    @Tag("proof")
    @ParameterizedTest
    @MethodSource("engines")
    void manyAreTheSame(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        holdIn(engine, root, 40);
    }

    /// Also for the engines of other modules.
    public static void holdIn(FixEngine engine, Path root, int jobs) throws Exception {
        RandomJobsTest test = new RandomJobsTest();
        test.root = root;
        Random random = new Random(SEED + 1);
        List<JobPage> pages = new ArrayList<>();
        List<JobParity.Asked> asked = new ArrayList<>();
        for (int i = 0; i < jobs; i++) {
            JobPage job = test.job(random, new HashMap<>());
            PlannedJob planned = PlannedJob.plan(test.shelf, job, Map.of()).get();
            pages.add(job);
            asked.add(JobParity.asked(test.shelf, planned).get());
        }
        List<JobParity.Verdict> verdicts = JobParity.verdicts(engine, asked);
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < jobs; i++) {
            JobParity result = new JobParity("job", engine.language(), verdicts.get(i), 0);
            if (result.differs()) {
                wrong.add(pages.get(i).source().text() + result.mark() + " " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }

    private Shelf shelf;
    private int calls;
    /// Lines that cannot be a fix: such as go on from a line that stands before them.
    private final List<String> refused = new ArrayList<>();

    /// A job of lines that fit.
    private JobPage job(Random random, Map<String, Integer> tried) throws Exception {
        return job(random, tried, LINES);
    }

    private JobPage job(Random random, Map<String, Integer> tried, int most) throws Exception {
        shelf = Jobs.shelf(
                root,
                DATA,
                "job: job\nlines:\n  - read: data/in.csv\n    name: begin\noutputs:\n  - write: out.parquet\n    replace: true\n");
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("data/list.csv"), LIST);
        Files.deleteIfExists(root.resolve("fixes/some_lines.fix.md"));
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(root.resolve("data/numbers.csv"), "k,number\na,7\n,9\n");
        Files.writeString(root.resolve("datasets/numbers.yaml"), "dataset: numbers\nload: numbers\n");
        Files.writeString(root.resolve("fixes/numbers.fix.md"), """
                ---
                format: 2
                fix: numbers
                kind: loader
                reads: read the numbers
                ---
                # Numbers

                ```yaml
                - read: {file: data/numbers.csv}
                - read_as: {number: integer}
                ```
                """);
        Files.writeString(
                root.resolve("jobs/other.yaml"),
                "job: other\nlines:\n  - read: list\n  - keep_rows: p <> 'two'\n  - rename: {p: v}\n"
                        + "  - number_rows: nr\noutputs:\n  - write: other.parquet\n");
        shelf = fixshelf.shelf.ShelfReader.read(root).get();
        JobPage job = shelf.job("job").orElseThrow();
        for (int tries = 0; tries < 4 * most && job.lines().size() <= most; tries++) {
            String line = RandomLines.OF_ALL_KINDS.get(random.nextInt(RandomLines.OF_ALL_KINDS.size()));
            String text = job.source().text().replace("outputs:", "  - " + line + "\noutputs:");
            JobPage longer = JobPages.read(job.file(), new SourceText("job", text));
            assertThat(longer.problems()).as(line).isEmpty();
            if (PlannedJob.draft(shelf, longer, Map.of()).problems().isEmpty()) {
                job = longer;
                tried.merge(line, 1, Integer::sum);
            }
        }
        return job.lines().size() > 2 && random.nextBoolean() ? withTableFix(job, random) : job;
    }

    /// The same, with some of its lines as a table fix, where these can be one.
    private JobPage withTableFix(JobPage job, Random random) throws Exception {
        int first = 2 + random.nextInt(job.lines().size() - 2);
        int last = first + 1 + random.nextInt(job.lines().size() - first);
        Plan plan = PlannedJob.draft(shelf, job, Map.of()).get().plan();
        if (FixOfLines.refusal(plan.steps().subList(first - 1, last)).isPresent()) {
            return job;
        }
        FixOfLines.Made made = FixOfLines.of(
                "some_lines",
                "Some lines",
                "",
                job.lines().subList(first - 1, last).stream()
                        .map(JobPage.PlacedLine::line)
                        .toList(),
                plan.steps().get(first - 2).columns().stream().map(Column::name).toList(),
                plan.steps().get(last - 1).columns().stream().map(Column::name).toList(),
                shelf.callables()::find);
        Files.createDirectories(root.resolve("fixes"));
        Files.writeString(root.resolve("fixes/some_lines.fix.md"), made.page());
        String text = JobEdits.callInstead(job, first, last, made.call());
        Shelf with = fixshelf.shelf.ShelfReader.read(root).get();
        JobPage called = JobPages.read(job.file(), new SourceText("job", text));
        List<Problem> problems = new ArrayList<>(with.problems());
        if (problems.isEmpty()) {
            problems.addAll(PlannedJob.draft(with, called, Map.of()).problems());
        }
        if (!problems.isEmpty()) {
            refused.add(problems.getFirst().what() + "\n" + job.source().text() + "\n" + made.page());
            return job;
        }
        shelf = with;
        calls++;
        return called;
    }

    /// @param follows whether cells and rows are followed too, which takes a while
    private void hold(JobPage job, boolean follows) throws Exception {
        PlannedJob planned = PlannedJob.plan(shelf, job, Map.of()).get();
        Path fix = root.resolve("fixes/some_lines.fix.md");
        String text = job.source().text() + (Files.exists(fix) ? Files.readString(fix) : "");
        try (Preview preview = Preview.open(planned.source()).get()) {
            List<LineEffect> effects = preview.look(planned).get();
            List<List<Row>> tables = new ArrayList<>();
            RelationModel model = new RelationModel(r -> switch (r) {
                case Relation.Result(int line, var _) -> tables.get(line - 1);
                case Relation.Source other ->
                    rows(preview.other(planned, other).get(), other.shape().fields());
                default -> throw new IllegalStateException();
            });
            tables.add(rows(
                    preview.grid(planned, 1).get(),
                    planned.plan().steps().getFirst().fields()));
            for (Step step :
                    planned.plan().steps().subList(1, planned.plan().steps().size())) {
                String at = text + "\nline " + step.number();
                // Languages that write names cannot tell two of one name apart, whoever sees them.
                step.after()
                        .parts()
                        .forEach(p -> assertThat(p.shape().names()).as(at).doesNotHaveDuplicates());
                List<Row> rows = model.rows(step.after());
                same(
                        at,
                        step.fields(),
                        rows,
                        preview.grid(planned, step.number()).get());
                accounted(
                        at,
                        step,
                        tables.get(planned.plan().before(step.number()).number() - 1),
                        rows,
                        effects.get(step.number() - 1));
                tables.add(rows);
                if (follows) {
                    lives(at, preview, planned, step);
                }
            }
            if (follows) {
                paths(text, preview, planned);
            }
            Outcome<JobRun.Report> run = JobRun.run(planned, JobRun.Watcher.NONE);
            Optional<LineEffect> broken = effects.stream()
                    .filter(e -> e.reports().stream().anyMatch(r -> r.breaks() && r.rows() > 0))
                    .findFirst();
            if (broken.isPresent()) {
                assertThat(run.problems().getFirst().what())
                        .as(text)
                        .contains("line " + broken.get().line());
                return;
            }
            JobRun.Report report = run.get();
            try (DuckSession session = DuckSession.open(report.files(), Optional.empty())) {
                String file = DuckSession.text(report.files().getFirst().toString());
                same(
                        text + "\nwritten",
                        planned.plan().last().fields(),
                        tables.getLast(),
                        session.query("SELECT * FROM read_parquet(" + file + ")"));
            }
            assertThat(report.effects().stream().map(RandomJobsTest::figures).toList())
                    .as(text)
                    .isEqualTo(effects.stream().map(RandomJobsTest::figures).toList());
        }
    }

    /// Each row of the source is followed to rows that are there, until it is gone.
    private static void paths(String text, Preview preview, PlannedJob planned) {
        RowPaths paths = new RowPaths(preview, planned);
        for (long row : places(preview, planned, 1)) {
            Outcome<RowPath> path = paths.path(row + 1);
            assertThat(path.problems()).as(text + "\nrow " + (row + 1)).isEmpty();
            for (RowPath.Stop stop : path.get().stops()) {
                assertThat(places(preview, planned, stop.step().number()))
                        .as(text + "\nrow " + (row + 1) + " at line "
                                + stop.step().number())
                        .containsAll(stop.places().stream().map(p -> p - 1).toList());
            }
        }
    }

    private static List<Long> places(Preview preview, PlannedJob planned, int line) {
        return preview
                .session()
                .query("SELECT p FROM " + preview.tableOf(planned, line) + " ORDER BY p")
                .rows()
                .stream()
                .map(r -> ((Number) r.getFirst()).longValue())
                .toList();
    }

    /// Some cells after a line are followed back: to the value that they have there.
    private static void lives(String at, Preview preview, PlannedJob planned, Step step) {
        List<Long> places = places(preview, planned, step.number());
        Grid grid = preview.grid(planned, step.number()).get();
        for (int i = 0; i < Math.min(2, places.size()); i++) {
            int row = (7 * i + step.number()) % places.size();
            int column = (5 * i + 3 * step.number()) % step.fields().size();
            String name = step.fields().get(column).name();
            String cell = at + ": " + name + " of row " + row;
            Outcome<CellLife> life = CellLives.of(preview, planned, step.number(), places.get(row) + 1, name);
            assertThat(life.problems()).as(cell).isEmpty();
            Object value = life.get().stages().stream()
                    .filter(s -> s.job().isEmpty() && s.line() == step.number())
                    .findFirst()
                    .map(CellLife.Stage::value)
                    .orElse(null);
            assertThat(CaseResult.same(grid.rows().get(row).get(column), value))
                    .as(cell + " is " + value)
                    .isTrue();
        }
    }

    private static String figures(LineEffect e) {
        return e.line() + ": " + e.rowsBefore() + " " + e.rowsAfter() + " " + e.left() + " " + e.added() + " "
                + e.cellsChanged() + " " + e.valuesLost() + " " + e.columns();
    }

    private static List<Row> rows(Grid grid, List<Field> fields) {
        List<Row> rows = new ArrayList<>();
        for (List<@Nullable Object> row : grid.rows()) {
            Map<String, @Nullable Object> cells = new HashMap<>();
            for (int i = 0; i < fields.size(); i++) {
                cells.put(fields.get(i).key(), row.get(i));
            }
            rows.add(new Row(cells, rows.size()));
        }
        return rows;
    }

    private static void same(String at, List<Field> fields, List<Row> expected, Grid got) {
        assertThat(got.rows()).as(at).hasSameSizeAs(expected);
        for (int r = 0; r < expected.size(); r++) {
            for (int c = 0; c < fields.size(); c++) {
                Object here = expected.get(r).get(fields.get(c));
                assertThat(CaseResult.same(here, got.rows().get(r).get(c)))
                        .as(at + ": row " + (r + 1) + ", " + fields.get(c).name() + " is "
                                + got.rows().get(r).get(c) + ", not " + here)
                        .isTrue();
            }
        }
    }

    /// Rows in are those that stay and those that leave, or they become groups; cells are changed where they differ.
    private static void accounted(String at, Step step, List<Row> before, List<Row> after, LineEffect effect) {
        assertThat(effect.rowsBefore()).as(at).isEqualTo(before.size());
        assertThat(effect.rowsAfter()).as(at).isEqualTo(after.size());
        if (step.rows() == Lineage.Rows.MERGED) {
            return;
        }
        Set<Integer> origins = new HashSet<>();
        after.forEach(r -> origins.add(r.origin()));
        origins.remove(-1);
        assertThat(effect.left()).as(at).isEqualTo(before.size() - origins.size());
        assertThat(effect.added())
                .as(at)
                .isEqualTo(after.stream().filter(r -> r.origin() < 0).count());
        if (step.rows() == Lineage.Rows.SAME) {
            assertThat(effect.left() + effect.added()).as(at).isZero();
        }
        long changed = 0;
        List<Field> replaced = step.replaced().stream()
                .filter(f -> !before.isEmpty() && before.getFirst().cells().containsKey(f.key()))
                .toList();
        for (Row row : after.stream().filter(r -> r.origin() >= 0).toList()) {
            for (Field field : replaced) {
                Object was = before.get(row.origin()).get(field);
                Object now = row.get(field);
                changed += String.valueOf(was).equals(String.valueOf(now)) ? 0 : 1;
            }
        }
        assertThat(effect.cellsChanged()).as(at).isEqualTo(changed);
    }
}
