package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Lookup;
import fixshelf.engine.Rows;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.SourceSession;
import fixshelf.table.Relation;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// A run looks keys up row by row where each row meets at most one other. Its rows, their order and all that it tells
/// are those of a preview, which joins in the engine.
class LookupsTest {
    private static final int ROWS = 1_000;

    /// Keys that differ little; a missing one stands for no key.
    private static final List<@Nullable String> KEYS =
            java.util.Arrays.asList("a", "A", "a ", "é", "e\u0301", "\uD834\uDD1E", "''", "b", "\u00A0", null);

    /// Lines, and how many of them look up: with another table where each key stands once, and where some stand twice.
    private record Lines(String lines, int ofDifferent, int ofRepeated) {}

    private static final List<String> OF_KEYS = List.of(
            Operation.Report.WITHOUT_MATCH,
            Operation.Report.UNMATCHED_KEYS,
            Operation.Report.AMBIGUOUS,
            Operation.Report.UNUSED);

    private static final Map<String, Lines> LINES = new LinkedHashMap<>();

    static {
        LINES.put("all stay", new Lines("  - bring_in: [v, n]\n    from: list\n    matching: {t: k}\n", 1, 0));
        LINES.put(
                "no match leaves",
                new Lines("  - bring_in: [n]\n    from: list\n    matching: {t: k}\n    without_match: leave\n", 1, 0));
        LINES.put(
                "the first of several",
                new Lines("  - bring_in: [v]\n    from: list\n    matching: {t: k}\n    several: first\n", 1, 1));
        LINES.put(
                "stops at several",
                new Lines("  - bring_in: [v]\n    from: list\n    matching: {t: k}\n    several: stop\n", 1, 0));
        LINES.put(
                "two keys, typed, after a filter",
                new Lines(
                        "  - read_as: {i: integer}\n  - keep_rows: i > 2 OR i IS NULL\n"
                                + "  - bring_in: [v]\n    from: list\n    matching: {t: k, i: n}\n    several: first\n"
                                + "  - keep_rows: v <> 'v3' OR v IS NULL\n  - set: [v]\n    to: upper(v)\n",
                        1,
                        1));
        LINES.put(
                "days and amounts",
                new Lines(
                        "  - read_as: {day: date, amount: \"decimal(9,2)\"}\n"
                                + "  - bring_in: [v]\n    from: list\n    matching: {day: day, amount: amount}\n"
                                + "    several: first\n",
                        1,
                        1));
        LINES.put(
                "through a fix",
                new Lines(
                        "  - bring_in: [v, day, amount]\n    from: list\n    matching: {t: k}\n    several: first\n"
                                + "    prefix: l_\n    compare: tidy\n",
                        1,
                        1));
        LINES.put(
                "rows that meet any, then those that meet none",
                new Lines(
                        "  - keep_matching: list\n    matching: {t: k}\n"
                                + "  - leave_out_matching: list\n    matching: {t: v}\n",
                        2,
                        2));
        LINES.put(
                "one after another",
                new Lines(
                        "  - bring_in: [v]\n    from: list\n    matching: {t: k}\n    several: first\n"
                                + "  - bring_in: [i]\n    from: in_other_words\n    matching: {v: t}\n"
                                + "    several: first\n    prefix: o_\n",
                        2,
                        2));
        LINES.put("side by side", new Lines("  - join: list\n    matching: {t: k}\n    prefix: l_\n", 1, 0));
        LINES.put("a fix that also changes cells", new Lines("  - upper_and_listed: {t: t}\n", 0, 0));
        LINES.put("a fix that looks up alone", new Lines("  - listed: {t: t}\n", 1, 1));
        LINES.put(
                "what repeats comes first",
                new Lines(
                        "  - drop_repeats: [t, i]\n    keep: first\n  - bring_in: [v]\n    from: list\n    matching: {t: k}\n"
                                + "    several: first\n",
                        0,
                        0));
    }

    @TempDir
    Path root;

    @Test
    void aRunIsWhatAPreviewShows() throws Exception {
        for (boolean repeats : List.of(false, true)) {
            for (Map.Entry<String, Lines> lines : LINES.entrySet()) {
                String of = lines.getKey() + (repeats ? ", keys repeat" : "");
                Shelf shelf = shelf(lines.getValue().lines(), repeats, new Random(of.hashCode()));
                PlannedJob planned = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                        .get();
                assertThat(lookedUp(planned))
                        .as(of)
                        .isEqualTo(
                                repeats
                                        ? lines.getValue().ofRepeated()
                                        : lines.getValue().ofDifferent());
                List<List<@Nullable String>> shown = new ArrayList<>();
                List<LineEffect> effects;
                try (Preview preview = Preview.open(planned.source(), Long.MAX_VALUE, Long.MAX_VALUE)
                        .get()) {
                    effects = preview.look(planned).get();
                    preview.eachResult(planned, row -> shown.add(new ArrayList<>(row)));
                }
                var run = JobRun.run(planned, JobRun.Watcher.NONE);
                if (!run.isPresent()) {
                    assertThat(of).isEqualTo("stops at several, keys repeat");
                    assertThat(run.problems().getFirst().what()).contains("rows break line 2: ");
                    continue;
                }
                assertThat(told(run.get().effects())).as(of).isEqualTo(told(effects));
                assertThat(written(planned)).as(of).isEqualTo(shown);
            }
        }
    }

    private static String told(List<LineEffect> effects) {
        return effects.stream()
                .map(e -> e.line() + ": " + e.margin() + ", " + e.left() + " left, " + e.added() + " added, "
                        + e.reports().stream()
                                .filter(r -> OF_KEYS.contains(r.name()))
                                .map(LineEffect.Counted::sentence)
                                .collect(Collectors.joining(", ")))
                .collect(Collectors.joining("\n"));
    }

    private static long lookedUp(PlannedJob job) {
        try (SourceSession loaded = SourceSession.open(job.source(), List.of())) {
            DuckSession session = loaded.session();
            job.plan().others().stream()
                    .map(Relation.Source::name)
                    .distinct()
                    .forEach(name ->
                            loaded.bring(Objects.requireNonNull(job.others().get(name)), Rows.table(name)));
            long count = 0;
            for (Step step : job.plan().steps()) {
                boolean first = job.plan().steps().subList(0, step.number()).stream()
                        .noneMatch(s -> s.line().call().equals("drop_repeats"));
                Optional<Lookup> lookup =
                        first ? Lookup.of(session, step, r -> Rows.other((Relation.Source) r)) : Optional.empty();
                count += lookup.isPresent() ? 1 : 0;
            }
            return count;
        }
    }

    private List<List<@Nullable String>> written(PlannedJob job) {
        Path out = root.resolve("out.parquet");
        try (DuckSession session = DuckSession.open(List.of(out), Optional.empty())) {
            String columns = job.plan().columns().stream()
                    .map(c -> "CAST(" + DuckSession.name(c.name()) + " AS VARCHAR)")
                    .collect(Collectors.joining(", "));
            return session
                    .query("SELECT " + columns + " FROM read_parquet(" + DuckSession.text(out.toString()) + ")")
                    .rows()
                    .stream()
                    .<List<@Nullable String>>map(r ->
                            r.stream().map(c -> (@Nullable String) c).collect(Collectors.toCollection(ArrayList::new)))
                    .toList();
        }
    }

    private Shelf shelf(String lines, boolean repeats, Random random) throws Exception {
        StringBuilder data = new StringBuilder("t,i,day,amount\n");
        for (int row = 0; row < ROWS; row++) {
            data.append(cell(KEYS.get(random.nextInt(KEYS.size()))))
                    .append(random.nextInt(4) == 0 ? "," : "," + random.nextInt(6))
                    .append(",2026-01-0")
                    .append(1 + random.nextInt(4))
                    .append(',')
                    .append(random.nextInt(3))
                    .append(random.nextBoolean() ? ".5\n" : ".50\n");
        }
        Jobs.shelf(
                root,
                data.toString(),
                "job: job\nlines:\n  - read: data/in.csv\n    null_words: ['']\n" + lines
                        + "outputs:\n  - write: out.parquet\n    replace: true\n");
        StringBuilder list = new StringBuilder("k,v,n,day,amount\n");
        for (int i = 0; i < KEYS.size() * (repeats ? 3 : 1); i++) {
            if (i % 10 != 1) {
                list.append(cell(KEYS.get(i % KEYS.size())))
                        .append(i % 5 == 0 ? "," : ",v" + i)
                        .append("," + i % 6 + ",2026-01-0" + (1 + i % 3) + "," + i % 2 + ".50\n");
            }
        }
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("data/list.csv"), list);
        Files.writeString(root.resolve("datasets/listed.yaml"), "dataset: listed\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("jobs/list.yaml"),
                "job: list\nlines:\n  - read: listed\n  - read_as: {n: integer, day: date, amount: \"decimal(9,2)\"}\n"
                        + "outputs:\n  - write: list.parquet\n");
        fix("listed", "");
        fix("upper_and_listed", "- set: [\"{t}\"]\n  to: NULLIF(upper(it), 'B')\n");
        Files.writeString(root.resolve("datasets/in_other_words.yaml"), "dataset: in_other_words\nread: data/in.csv\n");
        return ShelfReader.read(root).get();
    }

    private void fix(String name, String before) throws Exception {
        Files.writeString(
                root.resolve("fixes/" + name + ".fix.md"),
                "---\nformat: 2\nfix: " + name + "\nkind: table\nreads: keep those on the list\nparameters:\n"
                        + "  t: {type: column}\n---\n# Kept\n\n```yaml\n" + before
                        + "- keep_matching: list\n  matching: {\"{t}\": k}\n```\n");
    }

    private static String cell(@Nullable String key) {
        return key == null ? "" : key.equals("''") ? "\"\"" : key;
    }
}
