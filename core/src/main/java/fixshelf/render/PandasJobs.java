package fixshelf.render;

import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/// A job as a Python function from a data frame to a data frame.
final class PandasJobs {
    private final PandasLanguage language;

    PandasJobs(PandasLanguage language) {
        this.language = language;
    }

    Outcome<String> write(JobCode job, String name) {
        return JobLines.write(job, this::line).map(lines -> {
            List<String> body = new ArrayList<>();
            body.add("\"\"\""
                    + (job.about() + " Takes the rows of " + job.source() + ".")
                            .replaceAll("\\s+", " ")
                            .replace("\\", "\\\\")
                            .replace("\"\"\"", "'''")
                    + "\"\"\"");
            body.add("df = df.reset_index(drop=True).astype(\"string\")");
            lines.stream().filter(l -> !l.isEmpty()).forEach(body::add);
            body.add("return df.reset_index(drop=True)");
            return "def " + name + "(df: pd.DataFrame) -> pd.DataFrame:\n    "
                    + String.join("\n", body).replace("\n", "\n    ") + "\n";
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
                    case Step.Project project -> projected(project);
                    case Step.KeepOne keep -> kept(keep);
                };
    }

    private String computed(Step.Compute compute) {
        String values = compute.computed().stream()
                .map(c -> "    " + text(c.column()) + ": "
                        + PandasWriter.ofFrame()
                                .series(language.inJob(c))
                                .text()
                                .replace("\n", "\n    ")
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
