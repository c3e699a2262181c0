package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.engine.Rows;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.problem.SourceText;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// A line that would mend keys which nearly match, tried on the rows in hand.
///
/// @param line what is written
/// @param inserted whether it comes before the line that matches, instead of in its place
/// @param more how many rows more would match
/// @param ambiguous how many rows would match several then
/// @param now how many match several now
public record Mending(Line line, boolean inserted, long more, long ambiguous, long now) {
    static final String NEAR_MISSES = "near_misses";
    private static final String WITHOUT = "without_match";
    private static final String AMBIGUOUS = "ambiguous";
    private static final String NEAR = "near_keys";
    private static final int MOST_FIXES = 6;
    private static final int MOST_SHOWN = 3;
    private static final int MOST_PAIRS = 40;

    /// What is written, and what it would do: `compare through same_name: 57 rows more match, none ambiguous`.
    public String sentence() {
        String what = inserted
                ? "put a line before it that gives keys the names there"
                : "compare through "
                        + line.written("compare")
                                .flatMap(Written::texts)
                                .map(List::getFirst)
                                .orElse("?");
        String several = ambiguous == 0
                ? "none matches several"
                : ambiguous <= now
                        ? "no more than now match several"
                        : String.format("%,d more match several", ambiguous - now);
        return what
                + String.format(": %,d %s more %s", more, more == 1 ? "row" : "rows", more == 1 ? "matches" : "match")
                + ", " + several;
    }

    /// Those that help a line with near misses, the most helpful first: fixes of the shelf through which keys can be
    /// compared, and a mapping of the keys themselves. Rows of a preview are counted.
    public static Outcome<List<Mending>> of(Shelf shelf, Preview preview, PlannedJob job, int line) {
        Optional<Operation.Report> near = job.report(line, NEAR_MISSES);
        if (near.isEmpty()) {
            return Outcome.of(List.of());
        }
        return Preview.guarded(
                () -> new Trial(shelf, preview, job, line, near.get().relation()).all());
    }

    /// @param near a row for each pair of keys: those here, those there, what they differ in, how many rows
    private record Trial(Shelf shelf, Preview preview, PlannedJob job, int line, Relation near) {
        List<Mending> all() {
            preview.keep(job, near, NEAR, 10_000);
            List<Mending> all = new ArrayList<>();
            List<String> fixes = helpful();
            Line now = job.job().lines().get(line - 1).line();
            if (now.written("compare").isEmpty()) {
                for (String fix : fixes.subList(0, Math.min(MOST_FIXES, fixes.size()))) {
                    Map<String, Written> blanks = new LinkedHashMap<>(now.blanks());
                    blanks.put("compare", Written.word(fix));
                    Line changed = new Line(now.call(), blanks, now.name(), now.strict(), now.rest());
                    tried(JobEdits.replaceLine(job.job(), line - 1, changed), changed, line)
                            .ifPresent(all::add);
                }
            }
            mapping()
                    .flatMap(m -> tried(JobEdits.insertLine(job.job(), line - 1, m), m, line + 1))
                    .ifPresent(all::add);
            all.removeIf(m -> m.ambiguous() - m.now() >= m.more());
            all.sort(Comparator.comparingLong((Mending m) -> Math.max(0, m.ambiguous() - m.now()) - m.more()));
            return all.subList(0, Math.min(MOST_SHOWN, all.size()));
        }

        private List<Field> keys(boolean there) {
            List<Field> fields = near.shape().fields();
            int count = (fields.size() - 2) / 2;
            return there ? fields.subList(count, 2 * count) : fields.subList(0, count);
        }

        /// The fixes of one text through which any of the pairs are equal, those that help most rows first.
        private List<String> helpful() {
            Map<String, Long> rows = new LinkedHashMap<>();
            Scope.Fixes scope = shelf.callables().fixes();
            for (String name : new TreeSet<>(scope.names())) {
                if (scope.find(name) instanceof Scope.Found.Ready(Definition fix) && isOfOneText(fix)) {
                    long helped = helped(fix);
                    if (helped > 0) {
                        rows.put(name, helped);
                    }
                }
            }
            return rows.entrySet().stream()
                    .sorted(Map.Entry.<String, Long>comparingByValue().reversed())
                    .map(Map.Entry::getKey)
                    .toList();
        }

        private static boolean isOfOneText(Definition fix) {
            return !fix.parameters().isEmpty()
                    && fix.returns().equals(Type.TEXT)
                    && fix.parameters().getFirst().type().equals(Type.TEXT)
                    && fix.parameters().stream().skip(1).allMatch(p -> p.fallback()
                            .isPresent());
        }

        private long helped(Definition fix) {
            List<Expr> equal = new ArrayList<>();
            for (int key = 0; key < keys(false).size(); key++) {
                Field here = keys(false).get(key);
                Field there = keys(true).get(key);
                boolean text = here.type().equals(Type.TEXT);
                if (text) {
                    // What leaves nothing of a key makes all of them equal.
                    equal.add(Formula.call("<>", Given.through(fix, here.value()), Expr.Literal.text("")));
                }
                equal.add(Formula.call(
                        "=",
                        text ? Given.through(fix, here.value()) : here.value(),
                        text ? Given.through(fix, there.value()) : there.value()));
            }
            Relation helped = new Relation.Keep(new Relation.Source(NEAR, near.shape()), Formula.all(equal));
            String rows = near.shape().fields().getLast().key();
            return preview.session()
                    .number("SELECT coalesce(sum(" + rows + "), 0)::BIGINT FROM (" + Rows.beside(helped, _ -> NEAR)
                            + ")");
        }

        /// A mapping of one key of text, where it is clear what each becomes.
        private Optional<Line> mapping() {
            if (keys(false).size() != 1 || !keys(false).getFirst().type().equals(Type.TEXT)) {
                return Optional.empty();
            }
            String here = keys(false).getFirst().key();
            String there = keys(true).getFirst().key();
            Grid grid = preview.session()
                    .query("SELECT " + here + ", " + there + " FROM " + NEAR + " ORDER BY p LIMIT " + (MOST_PAIRS + 1));
            Map<String, String> pairs = new LinkedHashMap<>();
            Set<String> unclear = new TreeSet<>();
            grid.rows().forEach(r -> {
                String before = pairs.put(String.valueOf(r.getFirst()), String.valueOf(r.getLast()));
                if (before != null) {
                    unclear.add(String.valueOf(r.getFirst()));
                }
            });
            pairs.keySet().removeAll(unclear);
            if (pairs.isEmpty() || grid.rows().size() > MOST_PAIRS) {
                return Optional.empty();
            }
            Map<String, Written> blanks = new LinkedHashMap<>();
            blanks.put("columns", Written.words(List.of(keys(false).getFirst().name())));
            blanks.put("pairs", Written.pairs(pairs));
            return Optional.of(new Line("by_mapping", blanks));
        }

        /// What the line that matches tells when the page is like that.
        private Optional<Mending> tried(String text, Line written, int at) {
            JobPage page = JobPages.read(
                    job.job().file(), new SourceText(job.job().source().name(), text));
            Optional<PlannedJob> planned =
                    PlannedJob.plan(shelf, page, Map.of()).value();
            if (planned.isEmpty()) {
                return Optional.empty();
            }
            long more = counted(job, line, WITHOUT).orElse(0L)
                    - counted(planned.get(), at, WITHOUT).orElse(0L);
            long ambiguous = counted(planned.get(), at, AMBIGUOUS).orElse(0L);
            long now = counted(job, line, AMBIGUOUS).orElse(0L);
            return more > 0 ? Optional.of(new Mending(written, at != line, more, ambiguous, now)) : Optional.empty();
        }

        private Optional<Long> counted(PlannedJob planned, int at, String report) {
            return planned.report(at, report)
                    .map(r -> Objects.requireNonNull(preview.count(planned, r).get()));
        }
    }
}
