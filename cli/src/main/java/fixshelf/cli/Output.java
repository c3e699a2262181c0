package fixshelf.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.engine.Answer;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemPrinter;
import fixshelf.problem.SourceText;
import fixshelf.type.Literals;
import fixshelf.type.Visible;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Prints for people or for machines.
final class Output {
    static final int FINE = 0;
    static final int PROBLEMS = 1;
    static final int WRONG_USE = 2;
    static final int FAULT = 3;

    private static final int MOST_OF_CELL = 40;
    private static final ObjectMapper JSON = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

    private Output() {}

    static ObjectNode object() {
        return JSON.createObjectNode();
    }

    static void json(PrintWriter out, JsonNode node) {
        try {
            out.println(JSON.writeValueAsString(node));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /// What an engine gave, as a value of the document; an error or a refusal as words beside it.
    static void value(ObjectNode node, String name, Answer answer) {
        switch (answer) {
            case Answer.Value(Object value) -> raw(node, name, value);
            case Answer.Failed(String why) -> node.put(name + "_error", why);
            case Answer.NotSaid(String why) -> node.put(name + "_not_said", why);
        }
    }

    /// A value as it is: nothing in it is marked.
    static void raw(ObjectNode node, String name, @Nullable Object value) {
        switch (value) {
            case null -> node.putNull(name);
            case Boolean truth -> node.put(name, truth);
            case Long number -> node.put(name, number);
            case Double number -> node.put(name, number);
            default -> node.put(name, Literals.bare(value));
        }
    }

    /// Prints problems and gives the exit code that they ask for.
    static int problems(PrintWriter out, PrintWriter err, List<Problem> problems, boolean json) {
        if (json) {
            ObjectNode node = object();
            problems(node, problems);
            json(out, node);
        } else {
            Problem.inOrder(problems).forEach(p -> err.print(ProblemPrinter.print(p)));
            err.flush();
        }
        return problems.stream().anyMatch(Problem::isError) ? PROBLEMS : FINE;
    }

    static void problems(ObjectNode node, List<Problem> problems) {
        ArrayNode array = node.putArray("problems");
        for (Problem problem : Problem.inOrder(problems)) {
            SourceText.Position at = problem.where().position();
            array.addObject()
                    .put("code", problem.code().id())
                    .put("severity", problem.isError() ? "error" : "warning")
                    .put("file", problem.where().source().name())
                    .put("line", at.line())
                    .put("column", at.column())
                    .put("length", problem.where().span().length())
                    .put("what", problem.what())
                    .put("todo", problem.todo());
        }
    }

    /// A text on one line: names and sentences may hold breaks.
    static String line(String text) {
        return text.replace('\n', '¶').replace('\r', '␍').replace('\t', '→');
    }

    /// A value for people: what is missing, an empty text and signs that cannot be seen are told apart.
    static String cell(@Nullable Object value) {
        String text = value == null ? "∅" : Literals.bare(value);
        return text.isEmpty() ? "''" : value == null ? text : Visible.markOddities(text);
    }

    /// A table with columns as wide as they need to be, at most 40 characters.
    static void table(PrintWriter out, List<List<String>> cells) {
        table(out, cells, MOST_OF_CELL);
    }

    /// @param most as many characters of a cell are shown
    static void table(PrintWriter out, List<List<String>> cells, int most) {
        List<List<String>> rows =
                cells.stream().map(r -> r.stream().map(Output::line).toList()).toList();
        List<Integer> widths = new ArrayList<>();
        for (List<String> row : rows) {
            for (int i = 0; i < row.size(); i++) {
                int width = Math.min(most, row.get(i).length());
                if (widths.size() <= i) {
                    widths.add(width);
                }
                widths.set(i, Math.max(widths.get(i), width));
            }
        }
        for (List<String> row : rows) {
            StringBuilder line = new StringBuilder();
            for (int i = 0; i < row.size(); i++) {
                String cell = row.get(i).length() > most ? row.get(i).substring(0, most - 1) + "…" : row.get(i);
                line.append(cell).repeat(' ', widths.get(i) - cell.length() + 2);
            }
            out.println(line.toString().stripTrailing());
        }
    }

    /// Whether a text holds all of some words, without regard to capitals; `_` counts as a blank.
    static boolean holdsAll(String text, List<String> words) {
        String all = text.toLowerCase(Locale.ROOT);
        return words.stream()
                .flatMap(w -> Stream.of(w.toLowerCase(Locale.ROOT).split("\\s+")))
                .allMatch(w -> all.contains(w) || all.replace('_', ' ').contains(w));
    }
}
