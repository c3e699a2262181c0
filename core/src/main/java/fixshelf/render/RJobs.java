package fixshelf.render;

import fixshelf.language.Expr;
import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/// A job as an R function from a data frame to a data frame.
final class RJobs {
    private RJobs() {}

    /// The function; `inJob` says what stands for a new value.
    static Outcome<String> write(JobCode job, String name, Function<Step.Computed, Expr> inJob) {
        return JobLines.write(job, "#", line -> line(line.step(), inJob)).map(lines -> {
            List<String> body = new ArrayList<>();
            body.add("df <- mutate(df, across(everything(), as.character))");
            body.addAll(lines);
            body.add("df");
            return Comments.line("#", job.about()) + Comments.line("#", "Takes the rows of " + job.source() + ".")
                    + name + " <- function(df) {\n  " + String.join("\n", body).replace("\n", "\n  ") + "\n}\n";
        });
    }

    private static String line(Step step, Function<Step.Computed, Expr> inJob) {
        return switch (step) {
            case Step.Read _ -> "";
            case Step.Compute compute -> computed(compute, inJob);
            case Step.Project project -> {
                String kept = project.kept().stream()
                        .map(k -> k.was().equals(k.name())
                                ? RWriter.name(k.name())
                                : RWriter.name(k.name()) + " = " + RWriter.name(k.was()))
                        .collect(Collectors.joining(", "));
                yield "df <- select(df, " + kept + ")";
            }
            case Step.KeepOne keep ->
                "df <- .keep_one(df, " + texts(keep.keys()) + ", " + texts(keep.order()) + ", last = "
                        + (keep.keep() == Line.Keep.LAST ? "TRUE" : "FALSE") + ")";
        };
    }

    /// New columns see those before them; where a value needs an old one that is already new, it goes by another
    /// name.
    private static String computed(Step.Compute compute, Function<Step.Computed, Expr> inJob) {
        List<String> now = new ArrayList<>();
        List<String> later = new ArrayList<>();
        for (int i = 0; i < compute.computed().size(); i++) {
            Step.Computed computed = compute.computed().get(i);
            String column = RWriter.name(computed.column());
            boolean needed = compute.computed().stream()
                    .skip(i + 1L)
                    .anyMatch(c -> c.call().names().contains(computed.column()));
            String name = needed ? "`fixshelf new " + i + "`" : column;
            if (needed) {
                later.add(column + " = " + name);
                later.add(name + " = NULL");
            }
            String value = new RWriter(Set.of()).r(inJob.apply(computed)).text();
            now.add(name + " = " + value.replace("\n", "\n  "));
        }
        String first = "df <- mutate(df,\n  " + String.join(",\n  ", now) + ")";
        return later.isEmpty() ? first : first + "\ndf <- mutate(df, " + String.join(", ", later) + ")";
    }

    private static String texts(List<String> texts) {
        return texts.isEmpty()
                ? "character(0)"
                : texts.stream().map(t -> RLiterals.literal(t, Type.TEXT)).collect(Collectors.joining(", ", "c(", ")"));
    }
}
