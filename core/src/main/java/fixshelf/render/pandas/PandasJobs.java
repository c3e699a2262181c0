package fixshelf.render.pandas;

import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.render.frame.FrameJobs;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Collectors;

/// A job as a Python function from data frames to a data frame.
final class PandasJobs extends FrameJobs {
    private PandasJobs(Function<Expr, Expr> inJob) {
        super(inJob);
    }

    /// The function; `inJob` says what stands for a new value.
    static Outcome<String> write(JobCode job, String name, Function<Expr, Expr> inJob) {
        return new PandasJobs(inJob).write(job, name);
    }

    @Override
    protected String other(String source) {
        return PandasWriter.safe(source.equals("df") ? "df_" : source);
    }

    @Override
    protected String assigned(String name, String value) {
        return name + " = " + value;
    }

    @Override
    protected String texts(String frame) {
        return frame + ".reset_index(drop=True).astype(\"string\")";
    }

    @Override
    protected String stopped(String frame, String words) {
        return "assert " + frame + ".empty, " + text(words);
    }

    @Override
    protected String function(JobCode job, String name, List<String> others, List<String> statements) {
        List<String> body = new ArrayList<>();
        body.add(Comments.docstring(job.about() + " Takes the rows of " + job.sourceNames() + "."));
        body.addAll(statements);
        body.add("return df.reset_index(drop=True)");
        String arguments = others.stream().map(o -> ", " + o + ": pd.DataFrame").collect(Collectors.joining());
        return "def " + name + "(df: pd.DataFrame" + arguments + ") -> pd.DataFrame:\n    "
                + String.join("\n", body).replace("\n", "\n    ") + "\n";
    }

    @Override
    protected String pick(Relation.Pick pick) {
        List<Field> was = pick.shape().fields().stream()
                .map(f -> pick.from().shape().find(f.id()).orElseThrow())
                .toList();
        String chosen = "df = df[" + names(was) + "]";
        return was.equals(pick.shape().fields())
                ? chosen
                : chosen + ".set_axis(" + names(pick.shape().fields()) + ", axis=1)";
    }

    @Override
    protected String keep(Relation.Keep keep) {
        return "df = kept_rows(df, " + series(keep.condition(), keep.from()) + ")";
    }

    @Override
    protected String sort(Relation.Sort sort) {
        return "df = sorted_rows(df, " + order(sort.by()) + ")";
    }

    @Override
    protected String firstOf(Relation.FirstOf first) {
        return "df = first_of(df, " + names(first.keys()) + ", " + order(first.by()) + ", " + truth(first.lastPlace())
                + ")";
    }

    @Override
    protected String group(Relation.Group group) {
        String measures = group.made().stream()
                .map(PandasJobs::measure)
                .collect(Collectors.joining(",\n    ", "{\n    ", ",\n}"));
        return "df = grouped(df, " + names(group.keys()) + ", " + (group.made().isEmpty() ? "{}" : measures) + ")";
    }

    @Override
    protected String join(Relation.Join join, String right) {
        String on = join.on().stream()
                .map(p -> "(" + text(p.left().name()) + ", " + text(p.right().name()) + ")")
                .collect(Collectors.joining(", ", "[", "]"));
        String missing = missingMeets(join) ? ", True" : "";
        if (join.meeting() == Relation.Meeting.WITH || join.meeting() == Relation.Meeting.WITHOUT) {
            return "df = rows_with(df, " + right + ", " + on + ", " + truth(join.meeting() == Relation.Meeting.WITH)
                    + missing + ")";
        }
        String taken = join.taken().stream()
                .map(t -> "(" + text(t.field().name()) + ", " + text(t.made().name()) + ")")
                .collect(Collectors.joining(", ", "[", "]"));
        return "df = joined(df, " + right + ", " + on + ", " + taken + ", "
                + truth(join.meeting() == Relation.Meeting.ALL_LEFT) + missing + ")";
    }

    @Override
    protected String union(Relation.Union union, List<String> others) {
        String below = others.stream()
                .map(o -> ", " + o + ".set_axis(" + names(union.shape().fields()) + ", axis=1)")
                .collect(Collectors.joining());
        return "df = pd.concat([df" + below + "], ignore_index=True)";
    }

    @Override
    protected String unpivot(Relation.Unpivot unpivot, List<Field> others) {
        String sets = unpivot.sets().stream().map(PandasJobs::names).collect(Collectors.joining(", ", "[", "]"));
        return "df = unpivoted(df, " + names(others) + ", " + sets + ", " + list(unpivot.names()) + ", "
                + text(unpivot.name().name()) + ", " + names(unpivot.values()) + ", " + truth(unpivot.keepMissing())
                + ")";
    }

    private String series(Expr expr, Relation from) {
        return PandasWriter.ofFrame().series(inJob(expr, from)).text().replace("\n", "\n    ");
    }

    @Override
    protected String compute(Relation.Compute compute) {
        String values = compute.cells().stream()
                .map(c -> "    " + text(c.made().name()) + ": " + series(c.value(), compute.from()) + ",\n")
                .collect(Collectors.joining());
        String types = compute.cells().stream()
                .map(Computed::made)
                .map(f -> text(f.name()) + ": " + dtype(f.type()))
                .collect(Collectors.joining(", "));
        return "df = df.assign(**{\n" + values + "}).astype({" + types + "})";
    }

    @Override
    protected String window(Relation.Window window) {
        String parts = names(window.within()) + ", " + order(window.by()) + ", " + truth(window.backwards());
        return window.made().stream()
                .map(m -> "    " + text(m.made().name()) + ": windowed(df, " + parts + ", " + maker(m, window) + ", "
                        + dtype(m.made().type()) + "),\n")
                .collect(Collectors.joining("", "df = df.assign(**{\n", "})"));
    }

    private static String maker(Windowed made, Relation.Window window) {
        String values =
                made.of().map(f -> "df[" + text(f.name()) + "].tolist()").orElse("[1] * len(df)");
        String how = text(made.aggregate().name().toLowerCase(Locale.ROOT));
        return switch (made.kind()) {
            case NUMBER -> "lambda places: range(1, len(places) + 1)";
            case SHARED_NUMBER -> "ranked(df, " + order(window.by()) + ", True)";
            case DENSE_NUMBER -> "ranked(df, " + order(window.by()) + ", False)";
            case NEIGHBOUR -> "neighbour(" + values + ", " + made.steps() + ")";
            case LAST_FILLED -> "last_filled(" + values + ")";
            case SO_FAR -> "so_far(" + how + ", " + values + ")";
            case OF_ALL -> "of_all(" + how + ", " + values + ")";
        };
    }

    private static String measure(Grouped made) {
        return text(made.made().name()) + ": ("
                + text(made.aggregate().name().toLowerCase(Locale.ROOT)) + ", "
                + made.of().map(f -> text(f.name())).orElse("None") + ", " + text(made.separator()) + ", "
                + dtype(made.made().type()) + ")";
    }

    private static String order(List<Sorted> by) {
        return by.stream()
                .map(s -> "(" + text(s.field().name()) + ", " + truth(s.descending()) + ")")
                .collect(Collectors.joining(", ", "[", "]"));
    }

    private static String truth(boolean value) {
        return value ? "True" : "False";
    }

    private static String dtype(Type type) {
        String dtype = PandasWriter.dtype(type);
        return dtype.startsWith("\"") ? dtype : "\"" + dtype + "\"";
    }

    private static String names(List<Field> fields) {
        return list(fields.stream().map(Field::name).toList());
    }

    private static String list(List<String> texts) {
        return texts.stream().map(PandasJobs::text).collect(Collectors.joining(", ", "[", "]"));
    }

    private static String text(String text) {
        return PandasWriter.literalText(text);
    }
}
