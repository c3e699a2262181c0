package fixshelf.engine;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.pandas.PandasLanguage;
import fixshelf.type.Literals;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Python with pandas: the interpreter that `FIXSHELF_PYTHON` names, else `python3`, else the system's own.
final class PandasEngine extends ScriptEngine {
    private static final ObjectMapper JSON = new ObjectMapper();

    PandasEngine() {
        this("FIXSHELF_PYTHON", List.of("python3", "/usr/bin/python3", "python"), SECONDS);
    }

    /// With another variable, other programs to try, and another time limit.
    PandasEngine(String variable, List<String> usual, int seconds) {
        super(Languages.find("pandas").orElseThrow(), variable, usual, seconds);
    }

    @Override
    List<String> probe(String interpreter) {
        return List.of(interpreter, "-I", "-c", "import pandas; print('pandas', pandas.__version__)");
    }

    @Override
    String alone() {
        return "-I";
    }

    @Override
    String missing() {
        return "no python3 with pandas found: install pandas";
    }

    @Override
    String script() {
        return "run_fixes.py";
    }

    @Override
    String prelude(String expression) {
        return PandasLanguage.imports(expression);
    }

    @Override
    String functionName(Definition fix) {
        return PandasLanguage.functionName(fix);
    }

    @Override
    void write(List<Task> tasks, Path file) throws IOException {
        ArrayNode all = JSON.createArrayNode();
        tasks.forEach(t -> all.add(node(t)));
        JSON.writeValue(file.toFile(), all);
    }

    private static ObjectNode node(Task task) {
        ObjectNode node = JSON.createObjectNode();
        node.put("code", task.prelude());
        node.put(task.asFunction() ? "function" : "expression", task.call());
        ArrayNode parameters = node.putArray("parameters");
        for (int p = 0; p < task.group().fix().parameters().size(); p++) {
            parameters.add(parameter(task.group().fix().parameters().get(p), p, task));
        }
        return node;
    }

    private static ObjectNode parameter(Parameter parameter, int p, Task task) {
        ObjectNode node = JSON.createObjectNode();
        node.put("name", parameter.name());
        node.put("type", PandasLanguage.dtype(parameter.type()));
        node.put("fixed", parameter.fixed() && p > 0);
        ArrayNode values = node.putArray("values");
        for (int row : task.group().rows()) {
            Expr.Literal value = task.evaluation().rows().get(row).get(p);
            put(values, value.type().isFixed() ? Expr.Literal.NULL : value);
        }
        return node;
    }

    private static void put(ArrayNode values, Expr.Literal literal) {
        switch (literal.value()) {
            case null -> values.addNull();
            case Long number -> values.add(number);
            case Boolean truth -> values.add(truth);
            case Double number -> values.addObject().put("number", number.toString());
            case LocalDate day -> values.addObject().put("date", day.toString());
            case LocalDateTime time -> values.addObject().put("time", Literals.time(time));
            case BigDecimal number -> values.addObject().put("decimal", number.toPlainString());
            default -> values.add(literal.value().toString());
        }
    }

    @Override
    List<Answer> read(String line, Task task) throws IOException {
        List<Answer> answers = new ArrayList<>();
        for (JsonNode node : JSON.readTree(line)) {
            answers.add(
                    node.has("error") ? new Answer.Failed(node.get("error").asText()) : new Answer.Value(value(node)));
        }
        return answers;
    }

    @Override
    String task(Job job, String code) throws IOException {
        ObjectNode node = JSON.createObjectNode();
        node.put("code", code).put("job", PandasLanguage.functionName(job.code()));
        ArrayNode names = node.putArray("names");
        job.code().result().forEach(c -> names.add(c.name()));
        ArrayNode sources = node.putArray("sources");
        for (JobCode.Source source : job.code().sources()) {
            ObjectNode table = sources.addObject();
            ArrayNode columns = table.putArray("columns");
            source.columns().forEach(c -> columns.add(c.name()));
            ArrayNode cells = table.putArray("rows");
            for (List<@Nullable String> row : job.rows().getOrDefault(source.name(), List.of())) {
                ArrayNode values = cells.addArray();
                row.forEach(values::add);
            }
        }
        return JSON.writeValueAsString(node);
    }

    @Override
    void writeJobs(List<String> tasks, Path file) throws IOException {
        Files.writeString(file, "[" + String.join(",\n", tasks) + "]");
    }

    @Override
    Answer.OfJob read(String line, JobCode job) throws IOException {
        JsonNode answer = JSON.readTree(line);
        if (answer.has("error")) {
            return new Answer.OfJob.Stopped(answer.get("error").asText());
        }
        List<List<@Nullable Object>> rows = new ArrayList<>();
        for (JsonNode cells : answer) {
            List<@Nullable Object> row = new ArrayList<>();
            cells.forEach(c -> row.add(value(c)));
            rows.add(row);
        }
        return new Answer.OfJob.Rows(rows);
    }

    private static @Nullable Object value(JsonNode node) {
        if (node.isNull() || node.isMissingNode()) {
            return null;
        }
        if (node.has("time")) {
            return LocalDateTime.parse(node.get("time").asText().replace(' ', 'T'));
        }
        if (node.has("date")) {
            return LocalDate.parse(node.get("date").asText());
        }
        if (node.has("number")) {
            return Double.valueOf(node.get("number").asText());
        }
        if (node.isObject()) {
            return new BigDecimal(node.get("decimal").asText());
        }
        return node.isBoolean() ? (Object) node.asBoolean() : node.isNumber() ? (Object) node.asLong() : node.asText();
    }
}
