package fixshelf.render.frame;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Operation;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/// A job as a function from data frames to a data frame: `df` goes from line to line.
public abstract class FrameJobs {
    private final List<String> body = new ArrayList<>();
    private final Function<Expr, Expr> inJob;
    private int kept;
    /// How often the relations of a line are used, and the frames of those that are used several times.
    private final Map<Relation, Integer> uses = new IdentityHashMap<>();

    private final Map<Relation, String> frames = new IdentityHashMap<>();

    /// The names of the other tables, and the line that is being written.
    private List<String> others = List.of();

    private int current;
    private String first = "";

    /// @param inJob what stands for a new value
    public FrameJobs(Function<Expr, Expr> inJob) {
        this.inJob = inJob;
    }

    /// The argument for another table.
    protected abstract String other(String source);

    /// A statement that gives a name to a value.
    protected abstract String assigned(String name, String value);

    /// All columns of a frame as texts.
    protected abstract String texts(String frame);

    /// A statement that stops where a frame has any row.
    protected abstract String stopped(String frame, String words);

    /// The function around its statements.
    protected abstract String function(JobCode job, String name, List<String> others, List<String> statements);

    protected abstract String compute(Relation.Compute compute);

    protected abstract String pick(Relation.Pick pick);

    protected abstract String keep(Relation.Keep keep);

    protected abstract String sort(Relation.Sort sort);

    protected abstract String firstOf(Relation.FirstOf first);

    protected abstract String window(Relation.Window window);

    protected abstract String group(Relation.Group group);

    protected abstract String join(Relation.Join join, String right);

    protected abstract String union(Relation.Union union, List<String> others);

    /// @param others the fields that stay
    protected abstract String unpivot(Relation.Unpivot unpivot, List<Field> others);

    /// Whether missing keys meet; it is the same for all pairs of a join.
    protected static boolean missingMeets(Relation.Join join) {
        return join.on().stream().anyMatch(Relation.Pair::missingMeets);
    }

    /// An expression over the columns of a table, as it is written in the job.
    protected final Expr inJob(Expr expr, Relation from) {
        return inJob.apply(JobCode.named(expr, from));
    }

    protected final Outcome<String> write(JobCode job, String name) {
        List<Problem> problems = new ArrayList<>();
        others = job.sources().stream().skip(1).map(s -> other(s.name())).toList();
        body.add(assigned("df", texts("df")));
        others.forEach(o -> body.add(assigned(o, texts(o))));
        Set<Integer> named = job.namedLines();
        remember(1, named);
        first = job.first().name();
        if (job.readsFirstAgain()) {
            body.add(assigned(ours("as_read"), "df"));
        }
        for (JobCode.Line line : job.lines()) {
            int before = body.size();
            current = line.number();
            try {
                makeSure(line);
                begin(line.step().after());
                add(line.step().after());
                if (body.size() > before) {
                    String words = line.number() + ". " + line.sentence();
                    body.set(before, Comments.line("#", words) + body.get(before));
                }
                remember(line.number(), named);
            } catch (ProblemException e) {
                problems.add(JobCode.refused(line, e.problem()));
            }
        }
        return problems.isEmpty() ? Outcome.of(function(job, name, others, body)) : Outcome.failed(problems);
    }

    /// Keeps the table after a line that others come back to.
    private void remember(int line, Set<Integer> named) {
        if (named.contains(line)) {
            body.add(assigned(ours("line_" + line), "df"));
        }
    }

    /// A name of ours that no table of the user has.
    private String ours(String wanted) {
        String name = wanted;
        while (others.contains(name)) {
            name += "_";
        }
        return name;
    }

    /// The frame of a source; the first one comes as `df`, which is another one after the first line.
    private String frame(String source) {
        return source.equals(first) ? ours("as_read") : other(source);
    }

    private boolean isAbove(Relation relation) {
        return relation instanceof Relation.Result(int line, var _) && line == current - 1;
    }

    /// What a run makes sure of, as assertions; they speak of the table before the line.
    private void makeSure(JobCode.Line line) {
        line.step().reports().stream().filter(Operation.Report::breaks).forEach(r -> {
            begin(r.relation());
            String broken = beside(r.relation());
            body.add(stopped(broken, line.stop()));
        });
    }

    /// Before a relation is worked out: what stands in `df` gets a name where it is used several times.
    private void begin(Relation whole) {
        uses.clear();
        frames.clear();
        List<Relation> parts = whole.parts();
        parts.forEach(p -> p.inputs().forEach(i -> uses.merge(i, 1, Integer::sum)));
        Relation first = whole;
        while (!first.inputs().isEmpty()) {
            first = first.inputs().getFirst();
        }
        for (Relation part : parts) {
            boolean isFirst = part == first && uses.getOrDefault(part, 0) <= 1;
            if (isAbove(part) && !isFirst) {
                keep(part);
            }
        }
    }

    /// Gives `df` a name, by which a relation is found again.
    private void keep(Relation relation) {
        String name = ours("table_" + ++kept);
        body.add(assigned(name, "df"));
        frames.put(relation, name);
    }

    /// Makes `df` what a relation is; one that is used several times is worked out once.
    private void add(Relation relation) {
        String known = frames.get(relation);
        if (known != null) {
            body.add(assigned("df", known));
            return;
        }
        work(relation);
        if (uses.getOrDefault(relation, 0) > 1 && !(relation instanceof Relation.Source)) {
            keep(relation);
        }
    }

    private void work(Relation relation) {
        switch (relation) {
            case Relation.Result(int line, var _) -> {
                if (!isAbove(relation)) {
                    body.add(assigned("df", ours("line_" + line)));
                }
            }
            case Relation.Source(String name, var _) -> body.add(assigned("df", frame(name)));
            case Relation.Compute compute -> after(compute.from(), () -> compute(compute));
            case Relation.Pick pick -> after(pick.from(), () -> pick(pick));
            case Relation.Keep keep -> after(keep.from(), () -> keep(keep));
            case Relation.Sort sort -> after(sort.from(), () -> sort(sort));
            case Relation.FirstOf first -> after(first.from(), () -> firstOf(first));
            case Relation.Window window -> after(window.from(), () -> window(window));
            case Relation.Group group -> after(group.from(), () -> group(group));
            case Relation.Join join -> after(join.left(), () -> join(join, beside(join.right())));
            case Relation.Union union -> {
                List<Relation> more = union.tables().subList(1, union.tables().size());
                after(
                        union.tables().getFirst(),
                        () -> union(union, more.stream().map(this::beside).toList()));
            }
            case Relation.Unpivot unpivot -> {
                List<Field> fields = unpivot.shape().fields();
                int made = 1 + unpivot.values().size();
                after(unpivot.from(), () -> unpivot(unpivot, fields.subList(0, fields.size() - made)));
            }
        }
    }

    private void after(Relation from, FrameLanguage.Work statement) {
        add(from);
        body.add(statement.code());
    }

    /// Works out another table, while `df` stays what it is, and gives its name.
    private String beside(Relation relation) {
        if (relation instanceof Relation.Source(String name, var _)) {
            return frame(name);
        }
        if (relation instanceof Relation.Result(int line, var _) && !isAbove(relation)) {
            return ours("line_" + line);
        }
        String known = frames.get(relation);
        if (known != null) {
            return known;
        }
        kept++;
        String before = ours("kept_" + kept);
        String made = ours("other_" + kept);
        body.add(assigned(before, "df"));
        add(relation);
        body.add(assigned(made, "df"));
        body.add(assigned("df", before));
        return made;
    }
}
