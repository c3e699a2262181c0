package fixshelf.render.r;

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
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/// A job as an R function from data frames to a data frame.
final class RJobs extends FrameJobs {
    private RJobs(Function<Expr, Expr> inJob) {
        super(inJob);
    }

    /// The function; `inJob` says what stands for a new value.
    static Outcome<String> write(JobCode job, String name, Function<Expr, Expr> inJob) {
        return new RJobs(inJob).write(job, name);
    }

    @Override
    protected String other(String source) {
        return RWriter.name(source.equals("df") ? "df_" : source);
    }

    @Override
    protected String assigned(String name, String value) {
        return name + " <- " + value;
    }

    @Override
    protected String texts(String frame) {
        return "mutate(" + frame + ", across(everything(), as.character))";
    }

    @Override
    protected String stopped(String frame, String words) {
        return "if (nrow(" + frame + ") > 0) stop(" + text(words) + ")";
    }

    @Override
    protected String function(JobCode job, String name, List<String> others, List<String> statements) {
        String arguments = others.stream().map(o -> ", " + o).collect(Collectors.joining());
        return Comments.line("#", job.about()) + Comments.line("#", "Takes the rows of " + job.sourceNames() + ".")
                + name + " <- function(df" + arguments + ") {\n  "
                + String.join("\n", statements).replace("\n", "\n  ") + "\n  df\n}\n";
    }

    @Override
    protected String pick(Relation.Pick pick) {
        return pick.shape().fields().stream()
                .map(f -> picked(pick.from().shape().find(f.id()).orElseThrow(), f))
                .collect(Collectors.joining(", ", "df <- select(df, ", ")"));
    }

    private static String picked(Field was, Field now) {
        String name = RWriter.name(now.name());
        return was.name().equals(now.name()) ? name : name + " = " + RWriter.name(was.name());
    }

    @Override
    protected String keep(Relation.Keep keep) {
        return "df <- filter(df, " + value(keep.condition(), keep.from()) + ")";
    }

    @Override
    protected String sort(Relation.Sort sort) {
        return "df <- df[.in_order(df, " + order(sort.by()) + "), , drop = FALSE]";
    }

    @Override
    protected String firstOf(Relation.FirstOf first) {
        return "df <- .first_of(df, " + names(first.keys()) + ", " + order(first.by()) + ", " + truth(first.lastPlace())
                + ")";
    }

    @Override
    protected String window(Relation.Window window) {
        String parts = names(window.within()) + ", " + order(window.by()) + ", " + truth(window.backwards());
        return window.made().stream()
                .map(m -> "df[[" + text(m.made().name()) + "]] <- .windowed(df, " + parts + ", " + like(m) + ", "
                        + maker(m, window) + ")")
                .collect(Collectors.joining("\n"));
    }

    @Override
    protected String group(Relation.Group group) {
        String measures =
                group.made().stream().map(RJobs::measure).collect(Collectors.joining(",\n  ", "list(\n  ", ")"));
        return "df <- .grouped(df, " + names(group.keys()) + ", " + measures + ")";
    }

    @Override
    protected String join(Relation.Join join, String right) {
        String on = names(join.on().stream().map(Relation.Pair::left).toList()) + ", "
                + names(join.on().stream().map(Relation.Pair::right).toList());
        String missing = missingMeets(join) ? ", \"na\"" : "";
        if (join.meeting() == Relation.Meeting.WITH || join.meeting() == Relation.Meeting.WITHOUT) {
            return "df <- .rows_with(df, " + right + ", " + on + ", " + truth(join.meeting() == Relation.Meeting.WITH)
                    + missing + ")";
        }
        return "df <- .joined(df, " + right + ", " + on + ", "
                + names(join.taken().stream().map(Relation.Taken::field).toList()) + ", "
                + names(join.taken().stream().map(Relation.Taken::made).toList()) + ", "
                + truth(join.meeting() == Relation.Meeting.ALL_LEFT) + missing + ")";
    }

    @Override
    protected String union(Relation.Union union, List<String> others) {
        return others.stream()
                .map(o ->
                        "df <- .put_under(df, " + o + ", " + names(union.shape().fields()) + ")")
                .collect(Collectors.joining("\n"));
    }

    @Override
    protected String unpivot(Relation.Unpivot unpivot, List<Field> others) {
        String sets = unpivot.sets().stream().map(RJobs::names).collect(Collectors.joining(", ", "list(", ")"));
        return "df <- .unpivoted(df, " + names(others) + ", " + sets + ", " + list(unpivot.names()) + ", "
                + text(unpivot.name().name()) + ", " + names(unpivot.values()) + ", " + truth(unpivot.keepMissing())
                + ")";
    }

    private String value(Expr expr, Relation from) {
        return new RWriter(Set.of()).r(inJob(expr, from)).text().replace("\n", "\n  ");
    }

    /// New columns see those before them; where a value needs an old one that is already new, it goes by another
    /// name.
    @Override
    protected String compute(Relation.Compute compute) {
        List<String> now = new ArrayList<>();
        List<String> later = new ArrayList<>();
        for (int i = 0; i < compute.cells().size(); i++) {
            Computed cell = compute.cells().get(i);
            String column = RWriter.name(cell.made().name());
            boolean needed = compute.cells().stream()
                    .skip(i + 1L)
                    .anyMatch(c -> c.value().names().contains(cell.made().key()));
            String name = needed ? "`fixshelf new " + i + "`" : column;
            if (needed) {
                later.add(column + " = " + name);
                later.add(name + " = NULL");
            }
            now.add(name + " = " + value(cell.value(), compute.from()));
        }
        String first = "df <- mutate(df,\n  " + String.join(",\n  ", now) + ")";
        return later.isEmpty() ? first : first + "\ndf <- mutate(df, " + String.join(", ", later) + ")";
    }

    private static String like(Windowed made) {
        return made.of()
                .filter(f -> f.type().equals(made.made().type()))
                .map(f -> "df[[" + text(f.name()) + "]]")
                .orElse("NA_real_");
    }

    private static String maker(Windowed made, Relation.Window window) {
        String values = made.of().map(f -> "df[[" + text(f.name()) + "]]").orElse("rep(1, nrow(df))");
        String how = text(made.aggregate().name().toLowerCase(Locale.ROOT));
        return switch (made.kind()) {
            case NUMBER -> "seq_along";
            case SHARED_NUMBER, DENSE_NUMBER ->
                ".ranked(df, " + names(window.by().stream().map(Sorted::field).toList()) + ", "
                        + truth(made.kind() == Windowed.Kind.SHARED_NUMBER) + ")";
            case NEIGHBOUR -> ".neighbour(" + values + ", " + made.steps() + ")";
            case LAST_FILLED -> ".last_filled(" + values + ")";
            case SO_FAR -> ".so_far(" + how + ", " + values + ")";
            case OF_ALL -> ".of_all(" + how + ", " + values + ")";
        };
    }

    private static String measure(Grouped made) {
        return "list(name = " + text(made.made().name()) + ", how = "
                + text(made.aggregate().name().toLowerCase(Locale.ROOT)) + ", of = "
                + made.of().map(f -> text(f.name())).orElse("NULL") + ", separator = " + text(made.separator()) + ")";
    }

    private static String order(List<Sorted> by) {
        String down = by.isEmpty()
                ? "logical(0)"
                : by.stream().map(s -> truth(s.descending())).collect(Collectors.joining(", ", "c(", ")"));
        return names(by.stream().map(Sorted::field).toList()) + ", " + down;
    }

    private static String truth(boolean value) {
        return value ? "TRUE" : "FALSE";
    }

    private static String names(List<Field> fields) {
        return list(fields.stream().map(Field::name).toList());
    }

    private static String list(List<String> texts) {
        return texts.isEmpty()
                ? "character(0)"
                : texts.stream().map(RJobs::text).collect(Collectors.joining(", ", "c(", ")"));
    }

    private static String text(String text) {
        return RLiterals.literal(text, Type.TEXT);
    }
}
