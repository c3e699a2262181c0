package fixshelf.engine;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.ProblemException;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.r.RLanguage;
import fixshelf.type.Type;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// R with dplyr and stringr: the `Rscript` that `FIXSHELF_RSCRIPT` names, else the one on the path.
///
/// A line of answers has one part for each row: `N` for missing, `T`, `F`, `D` and a number, `S` and the code
/// points of a text, `E` and those of a message. A task that could not be read is `!` and a message.
final class REngine extends ScriptEngine {
    private static final MathContext DIGITS = new MathContext(15);
    private static final int VALUES_A_LINE = 200;

    /// Rows that cannot be written in R, by task; they are not sent.
    private final Map<Task, Map<Integer, String>> unsaid = new IdentityHashMap<>();

    REngine() {
        super(Languages.find("r").orElseThrow(), "FIXSHELF_RSCRIPT", List.of("Rscript"), SECONDS);
    }

    @Override
    List<String> probe(String interpreter) {
        return List.of(
                interpreter,
                "--vanilla",
                "-e",
                "suppressMessages({library(dplyr); library(stringr)});"
                        + "cat(paste0(getRversion(), ', dplyr ', packageVersion('dplyr')))");
    }

    @Override
    String alone() {
        return "--vanilla";
    }

    @Override
    String missing() {
        return "no Rscript with dplyr and stringr found: install R and both packages";
    }

    @Override
    String script() {
        return "run_fixes.R";
    }

    @Override
    String prelude(String expression) {
        return RLanguage.prelude(expression);
    }

    @Override
    String functionName(Definition fix) {
        return RLanguage.functionName(fix);
    }

    @Override
    void write(List<Task> tasks, Path file) throws IOException {
        StringBuilder out = new StringBuilder();
        for (Task task : tasks) {
            out.append("#--- task\nlocal({\n").append(task.prelude()).append('\n');
            List<Integer> sent = sent(task);
            int width = task.group().fix().parameters().size();
            List<String> arguments = new ArrayList<>();
            for (int p = 0; p < width; p++) {
                var parameter = task.group().fix().parameters().get(p);
                boolean constant = parameter.fixed() && p > 0;
                out.append("v")
                        .append(p)
                        .append(" <- ")
                        .append(vector(task, sent, p))
                        .append('\n');
                arguments.add("v" + p + (constant ? "[1]" : "[rows]"));
            }
            out.append("run(").append(sent.size()).append(", function(rows) {\n");
            if (task.asFunction()) {
                out.append(task.call())
                        .append('(')
                        .append(String.join(", ", arguments))
                        .append(")\n");
            } else {
                for (int p = 0; p < width; p++) {
                    out.append("p").append(p).append(" <- v").append(p).append("[rows]\n");
                }
                out.append(task.call()).append('\n');
            }
            out.append("})\n})\n");
        }
        Files.writeString(file, out);
    }

    /// The places, in the group, of the rows that R can hold.
    private List<Integer> sent(Task task) {
        List<Integer> sent = new ArrayList<>();
        Map<Integer, String> left = new HashMap<>();
        for (int i = 0; i < task.group().rows().size(); i++) {
            try {
                for (Expr.Literal value :
                        task.evaluation().rows().get(task.group().rows().get(i))) {
                    if (!value.type().isFixed()) {
                        RLanguage.literal(value);
                    }
                }
                sent.add(i);
            } catch (ProblemException e) {
                left.put(i, e.problem().what());
            }
        }
        unsaid.put(task, left);
        return sent;
    }

    private static String vector(Task task, List<Integer> sent, int p) {
        StringBuilder out = new StringBuilder();
        Type type = task.group().fix().parameters().get(p).type();
        out.append("c(").append(RLanguage.literal(new Expr.Literal(null, type))).append("[0]");
        for (int from = 0; from < sent.size(); from += VALUES_A_LINE) {
            out.append(",\n c(");
            for (int i = from; i < Math.min(sent.size(), from + VALUES_A_LINE); i++) {
                Expr.Literal value = task.evaluation()
                        .rows()
                        .get(task.group().rows().get(sent.get(i)))
                        .get(p);
                Expr.Literal typed = value.value() == null || type.isFixed() ? new Expr.Literal(null, type) : value;
                out.append(i == from ? "" : ", ").append(RLanguage.literal(typed));
            }
            out.append(')');
        }
        return out.append(')').toString();
    }

    @Override
    List<Answer> read(String line, Task task) throws IOException {
        Map<Integer, String> left = unsaid.getOrDefault(task, Map.of());
        if (line.startsWith("!")) {
            Answer failed = new Answer.Failed(text(line.substring(1)));
            return task.group().rows().stream().map(_ -> failed).toList();
        }
        List<String> parts = line.isEmpty() ? List.of() : Arrays.asList(line.split(";", -1));
        List<Answer> answers = new ArrayList<>();
        int at = 0;
        for (int i = 0; i < task.group().rows().size(); i++) {
            if (left.containsKey(i)) {
                answers.add(new Answer.NotSaid(left.get(i)));
            } else if (at < parts.size()) {
                answers.add(answer(parts.get(at++), task.group().fix().returns()));
            } else {
                answers.add(new Answer.Failed("no answer"));
            }
        }
        unsaid.remove(task);
        return answers;
    }

    @Override
    String task(Job job, String code) {
        StringBuilder out = new StringBuilder("#--- task\nlocal({\n").append(code);
        List<String> frames = new ArrayList<>();
        for (JobCode.Source source : job.code().sources()) {
            String name = "source_" + (frames.size() + 1);
            frames.add(name);
            frame(name, source, job.rows().getOrDefault(source.name(), List.of()), out);
        }
        out.append("run_job(function() ")
                .append(RLanguage.functionName(job.code()))
                .append("(")
                .append(String.join(", ", frames))
                .append("), c(")
                .append(job.code().result().stream()
                        .map(c -> RLanguage.literal(new Expr.Literal(c.name(), Type.TEXT)))
                        .collect(Collectors.joining(", ")))
                .append("))\n})\n");
        return out.toString();
    }

    @Override
    void writeJobs(List<String> tasks, Path file) throws IOException {
        Files.writeString(file, String.join("", tasks));
    }

    private static void frame(
            String name, JobCode.Source source, List<List<@Nullable String>> rows, StringBuilder out) {
        out.append(name).append(" <- data.frame(check.names = FALSE");
        for (int c = 0; c < source.columns().size(); c++) {
            int column = c;
            List<String> cells = rows.stream()
                    .map(r -> RLanguage.literal(new Expr.Literal(r.get(column), Type.TEXT)))
                    .toList();
            out.append(",\n")
                    .append(RLanguage.name(source.columns().get(c).name()))
                    .append(" = c(NA_character_[0]");
            for (int from = 0; from < cells.size(); from += VALUES_A_LINE) {
                List<String> some = cells.subList(from, Math.min(cells.size(), from + VALUES_A_LINE));
                out.append(",\n ").append(String.join(", ", some));
            }
            out.append(')');
        }
        out.append(")\n");
    }

    @Override
    Answer.OfJob read(String line, JobCode job) {
        if (line.startsWith("!")) {
            return new Answer.OfJob.Stopped(text(line.substring(1)));
        }
        List<String> parts = line.isEmpty() ? List.of() : Arrays.asList(line.split(";", -1));
        int width = job.result().size();
        List<List<@Nullable Object>> rows = new ArrayList<>();
        for (int from = 0; from + width <= parts.size(); from += width) {
            List<@Nullable Object> row = new ArrayList<>();
            for (int c = 0; c < width; c++) {
                Answer answer = answer(parts.get(from + c), job.result().get(c).type());
                row.add(answer instanceof Answer.Value(Object value) ? value : String.valueOf(answer));
            }
            rows.add(row);
        }
        return new Answer.OfJob.Rows(rows);
    }

    private static Answer answer(String part, Type type) {
        String rest = part.substring(1);
        return switch (part.charAt(0)) {
            case 'N' -> new Answer.Value(null);
            case 'T' -> new Answer.Value(true);
            case 'F' -> new Answer.Value(false);
            case 'D' ->
                rest.endsWith("Inf")
                        ? new Answer.Failed("an infinite number")
                        : new Answer.Value(number(new BigDecimal(rest), type));
            case 'S' -> new Answer.Value(text(rest));
            default -> new Answer.Failed(text(rest));
        };
    }

    private static @Nullable Object number(BigDecimal number, Type type) {
        return switch (type) {
            case Type.Decimal _ -> number.round(DIGITS);
            case Type.Num _ -> number.doubleValue();
            case Type.Int _ -> number.longValue();
            case Type.Date _ -> LocalDate.ofEpochDay(number.longValue());
            case Type.Timestamp _ -> time(number);
            case Type.Bool _, Type.Text _, Type.ListOf _, Type.Mapping _, Type.Unknown _ -> number;
        };
    }

    /// Seconds in floating point, which are near a microsecond.
    private static LocalDateTime time(BigDecimal seconds) {
        BigDecimal micros = seconds.setScale(6, RoundingMode.HALF_UP);
        long whole = micros.setScale(0, RoundingMode.FLOOR).longValueExact();
        int nanos = micros.subtract(BigDecimal.valueOf(whole)).movePointRight(9).intValueExact();
        return LocalDateTime.ofEpochSecond(whole, nanos, ZoneOffset.UTC);
    }

    private static String text(String codePoints) {
        StringBuilder out = new StringBuilder();
        if (!codePoints.isEmpty()) {
            for (String point : codePoints.split(",")) {
                out.appendCodePoint(Integer.parseInt(point));
            }
        }
        return out.toString();
    }
}
