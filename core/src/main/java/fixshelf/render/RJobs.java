package fixshelf.render;

import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/// A job as an R function from a data frame to a data frame.
final class RJobs {
    private final RLanguage language;

    RJobs(RLanguage language) {
        this.language = language;
    }

    Outcome<String> write(JobCode job, String name) {
        return JobLines.write(job, this::line).map(lines -> {
            List<String> body = new ArrayList<>();
            body.add("df <- mutate(df, across(everything(), as.character))");
            lines.stream().filter(l -> !l.isEmpty()).forEach(body::add);
            body.add("df");
            return "# " + job.about().replaceAll("\\s+", " ") + "\n# Takes the rows of " + job.source() + ".\n" + name
                    + " <- function(df) {\n  " + String.join("\n", body).replace("\n", "\n  ") + "\n}\n";
        });
    }

    private String line(JobCode.Line line) {
        if (JobLines.isIdle(line.step())) {
            return "";
        }
        return "# " + JobLines.remark(line) + "\n"
                + switch (line.step()) {
                    case Step.Read _ -> "";
                    case Step.Compute compute -> computed(compute);
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
    private String computed(Step.Compute compute) {
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
            String value = new RWriter(Set.of()).r(language.inJob(computed)).text();
            now.add(name + " = " + value.replace("\n", "\n  "));
        }
        String first = "df <- mutate(df,\n  " + String.join(",\n  ", now) + ")";
        return later.isEmpty() ? first : first + "\ndf <- mutate(df, " + String.join(", ", later) + ")";
    }

    private static String texts(List<String> texts) {
        return texts.isEmpty()
                ? "character(0)"
                : texts.stream().map(t -> RWriter.literal(t, Type.TEXT)).collect(Collectors.joining(", ", "c(", ")"));
    }
}
