package fixshelf.engine;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.language.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.render.PandasLanguage;
import fixshelf.type.Type;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/// Python with pandas as a process of its own: one start for many fixes, data passed as files.
///
/// The interpreter is the one that `FIXSHELF_PYTHON` names, else `python3`, else the system's own.
final class PandasEngine implements FixEngine {
    private static final int SECONDS = 120;
    private static final ObjectMapper JSON = new ObjectMapper();

    private final Language language = Languages.find("pandas").orElseThrow();
    private Optional<Presence> presence = Optional.empty();
    private String python = "python3";

    @Override
    public Language language() {
        return language;
    }

    @Override
    public synchronized Presence presence() {
        if (presence.isEmpty()) {
            presence = Optional.of(look());
        }
        return presence.get();
    }

    private Presence look() {
        for (String candidate : candidates()) {
            try {
                Process process = new ProcessBuilder(candidate, "-c", "import pandas; print(pandas.__version__)")
                        .redirectError(ProcessBuilder.Redirect.DISCARD)
                        .start();
                String version = new String(
                                process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8)
                        .strip();
                if (process.waitFor(30, TimeUnit.SECONDS) && process.exitValue() == 0) {
                    python = candidate;
                    return new Presence.Here("pandas " + version);
                }
            } catch (IOException e) {
                System.getLogger(PandasEngine.class.getName()).log(System.Logger.Level.DEBUG, candidate, e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        return new Presence.Absent("no python3 with pandas found: install pandas, or set FIXSHELF_PYTHON");
    }

    private static List<String> candidates() {
        String named = Objects.requireNonNullElse(System.getenv("FIXSHELF_PYTHON"), "");
        return named.isBlank() ? List.of("python3", "/usr/bin/python3", "python") : List.of(named);
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        List<List<Answer>> all = new ArrayList<>();
        evaluations.forEach(e -> all.add(new ArrayList<>(e.rows().stream()
                .map(_ -> (Answer) new Answer.Failed("not run"))
                .toList())));
        ArrayNode tasks = JSON.createArrayNode();
        List<List<Answer>> places = new ArrayList<>();
        List<Groups> groups = new ArrayList<>();
        for (int i = 0; i < evaluations.size(); i++) {
            for (Groups group : Groups.of(evaluations.get(i))) {
                Outcome<ObjectNode> task = task(group, evaluations.get(i));
                List<Answer> answers = all.get(i);
                if (task.isPresent()) {
                    tasks.add(task.get());
                    places.add(answers);
                    groups.add(group);
                } else {
                    String why = task.problems().getFirst().what();
                    group.rows().forEach(r -> answers.set(r, new Answer.NotSaid(why)));
                }
            }
        }
        collect(tasks, places, groups);
        return all;
    }

    private void collect(ArrayNode tasks, List<List<Answer>> places, List<Groups> groups) {
        if (tasks.isEmpty()) {
            return;
        }
        JsonNode results = process(tasks);
        for (int t = 0; t < groups.size(); t++) {
            List<Integer> rows = groups.get(t).rows();
            for (int i = 0; i < rows.size(); i++) {
                places.get(t).set(rows.get(i), answer(results, t, i));
            }
        }
    }

    private static Answer answer(JsonNode results, int task, int row) {
        JsonNode result = results.path(task);
        if (result.has("error")) {
            return new Answer.Failed(result.get("error").asText());
        }
        if (results.has("error")) {
            return new Answer.Failed(results.get("error").asText());
        }
        return new Answer.Value(value(result.path("values").path(row)));
    }

    private static @Nullable Object value(JsonNode node) {
        if (node.isNull() || node.isMissingNode()) {
            return null;
        }
        if (node.isObject()) {
            return new BigDecimal(node.get("decimal").asText());
        }
        return node.isBoolean() ? (Object) node.asBoolean() : node.isNumber() ? (Object) node.asLong() : node.asText();
    }

    /// The definition, called with columns; a null for a fixed parameter is only possible in an expression.
    private Outcome<ObjectNode> task(Groups group, Evaluation evaluation) {
        Definition fix = group.fix();
        boolean nullFixed = false;
        for (int p = 0; p < fix.parameters().size(); p++) {
            nullFixed |= fix.parameters().get(p).fixed() && group.first().get(p).value() == null;
        }
        Outcome<String> definition = language.definition(fix, "");
        boolean asFunction = definition.isPresent()
                && !nullFixed
                && !fix.parameters().getFirst().fixed();
        ObjectNode task = JSON.createObjectNode();
        if (!asFunction) {
            Outcome<String> code = language.expression(Inliner.call(fix, group.arguments()));
            if (!code.isPresent()) {
                return Outcome.failed(code.problems());
            }
            task.put("code", PandasLanguage.imports(code.get()));
            task.put("expression", code.get());
        } else {
            task.put("code", definition.get());
            task.put("function", fix.name());
        }
        ArrayNode parameters = task.putArray("parameters");
        for (int p = 0; p < fix.parameters().size(); p++) {
            parameters.add(parameter(fix.parameters().get(p), p, group, evaluation));
        }
        return Outcome.of(task);
    }

    private static ObjectNode parameter(Parameter parameter, int p, Groups group, Evaluation evaluation) {
        ObjectNode node = JSON.createObjectNode();
        node.put("name", parameter.name());
        node.put(
                "type",
                switch (parameter.type()) {
                    case Type.Text _, Type.Unknown _ -> "string";
                    case Type.Int _ -> "Int64";
                    case Type.Bool _ -> "boolean";
                    case Type.Decimal _ -> "object";
                });
        node.put("fixed", parameter.fixed() && p > 0);
        ArrayNode values = node.putArray("values");
        for (int row : group.rows()) {
            put(values, evaluation.rows().get(row).get(p));
        }
        return node;
    }

    private static void put(ArrayNode values, Expr.Literal literal) {
        switch (literal.value()) {
            case null -> values.addNull();
            case Long number -> values.add(number);
            case Boolean truth -> values.add(truth);
            case BigDecimal number -> values.addObject().put("decimal", number.toPlainString());
            default -> values.add(literal.value().toString());
        }
    }

    private JsonNode process(ArrayNode tasks) {
        try {
            Path folder = Files.createTempDirectory("fixshelf-pandas");
            try {
                return process(tasks, folder);
            } finally {
                try (var files = Files.list(folder)) {
                    for (Path file : files.toList()) {
                        Files.delete(file);
                    }
                }
                Files.delete(folder);
            }
        } catch (IOException e) {
            return JSON.createObjectNode().put("error", "Python could not be run: " + e.getMessage());
        }
    }

    private JsonNode process(ArrayNode tasks, Path folder) throws IOException {
        Path script = folder.resolve("run_fixes.py");
        try (InputStream in = Objects.requireNonNull(PandasEngine.class.getResourceAsStream("run_fixes.py"))) {
            Files.copy(in, script);
        }
        Path tasksFile = folder.resolve("tasks.json");
        Path answersFile = folder.resolve("answers.json");
        JSON.writeValue(tasksFile.toFile(), tasks);
        Path messages = folder.resolve("messages.txt");
        Process process = new ProcessBuilder(python, script.toString(), tasksFile.toString(), answersFile.toString())
                .redirectErrorStream(true)
                .redirectOutput(messages.toFile())
                .start();
        try {
            if (!process.waitFor(SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                return JSON.createObjectNode()
                        .put("error", "Python did not end within " + SECONDS + " seconds and was stopped");
            }
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            return JSON.createObjectNode().put("error", "stopped");
        }
        if (process.exitValue() != 0) {
            String last = Files.readString(messages).lines().reduce("", (_, b) -> b);
            return JSON.createObjectNode().put("error", "Python ended with " + process.exitValue() + ": " + last);
        }
        return JSON.readTree(answersFile.toFile());
    }
}
