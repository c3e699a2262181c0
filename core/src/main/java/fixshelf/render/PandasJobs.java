package fixshelf.render;

import fixshelf.language.Expr;
import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;

/// A job as a Python function from a data frame to a data frame.
final class PandasJobs {
    private PandasJobs() {}

    /// The function; `inJob` says what stands for a new value.
    static Outcome<String> write(JobCode job, String name, Function<Step.Computed, Expr> inJob) {
        return JobLines.write(job, "#", line -> line(line.step(), inJob)).map(lines -> {
            List<String> body = new ArrayList<>();
            body.add(Comments.docstring(job.about() + " Takes the rows of " + job.source() + "."));
            body.add("df = df.reset_index(drop=True).astype(\"string\")");
            body.addAll(lines);
            body.add("return df.reset_index(drop=True)");
            return "def " + name + "(df: pd.DataFrame) -> pd.DataFrame:\n    "
                    + String.join("\n", body).replace("\n", "\n    ") + "\n";
        });
    }

    private static String line(Step step, Function<Step.Computed, Expr> inJob) {
        return switch (step) {
            case Step.Read _ -> "";
            case Step.Compute compute -> computed(compute, inJob);
            case Step.Project project -> projected(project);
            case Step.KeepOne keep -> kept(keep);
        };
    }

    private static String computed(Step.Compute compute, Function<Step.Computed, Expr> inJob) {
        String values = compute.computed().stream()
                .map(c -> "    " + text(c.column()) + ": "
                        + PandasWriter.ofFrame().series(inJob.apply(c)).text().replace("\n", "\n    ")
                        + ",\n")
                .collect(Collectors.joining());
        String types = compute.computed().stream()
                .map(c -> text(c.column()) + ": " + dtype(c.call().type()))
                .collect(Collectors.joining(", "));
        return "df = df.assign(**{\n" + values + "}).astype({" + types + "})";
    }

    private static String dtype(Type type) {
        String dtype = PandasWriter.dtype(type);
        return dtype.startsWith("\"") ? dtype : "\"" + dtype + "\"";
    }

    private static String projected(Step.Project project) {
        String chosen =
                "df = df[" + texts(project.kept().stream().map(Step.Kept::was).toList()) + "]";
        boolean same = project.kept().stream().allMatch(k -> k.was().equals(k.name()));
        return same
                ? chosen
                : chosen + ".set_axis("
                        + texts(project.kept().stream().map(Step.Kept::name).toList()) + ", axis=1)";
    }

    private static String kept(Step.KeepOne keep) {
        String sorted = keep.order().isEmpty()
                ? "df"
                : "df.sort_values(" + texts(keep.order()) + ", kind=\"stable\", na_position=\"first\")";
        String side = keep.keep() == Line.Keep.LAST ? "last" : "first";
        return "df = " + sorted + ".drop_duplicates(" + texts(keep.keys()) + ", keep=\"" + side + "\").sort_index()";
    }

    private static String texts(List<String> texts) {
        return texts.stream().map(PandasJobs::text).collect(Collectors.joining(", ", "[", "]"));
    }

    private static String text(String text) {
        return PandasWriter.literalText(text);
    }
}
