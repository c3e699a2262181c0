package fixshelf.cli;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemPrinter;
import fixshelf.problem.SourceText;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;

/// Prints for people or for machines.
final class Output {
    static final int FINE = 0;
    static final int PROBLEMS = 1;
    static final int WRONG_USE = 2;
    static final int FAULT = 3;

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

    /// Prints problems and gives the exit code that they ask for.
    static int problems(PrintWriter out, PrintWriter err, List<Problem> problems, boolean json) {
        if (json) {
            ObjectNode node = object();
            problems(node, problems);
            json(out, node);
        } else {
            problems.forEach(p -> err.print(ProblemPrinter.print(p)));
            err.flush();
        }
        return problems.stream().anyMatch(Problem::isError) ? PROBLEMS : FINE;
    }

    static void problems(ObjectNode node, List<Problem> problems) {
        ArrayNode array = node.putArray("problems");
        for (Problem problem : problems) {
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

    /// A table with columns as wide as they need to be, at most 40 characters.
    static void table(PrintWriter out, List<List<String>> rows) {
        List<Integer> widths = new ArrayList<>();
        for (List<String> row : rows) {
            for (int i = 0; i < row.size(); i++) {
                int width = Math.min(40, row.get(i).length());
                if (widths.size() <= i) {
                    widths.add(width);
                }
                widths.set(i, Math.max(widths.get(i), width));
            }
        }
        for (List<String> row : rows) {
            StringBuilder line = new StringBuilder();
            for (int i = 0; i < row.size(); i++) {
                String cell = row.get(i).length() > 40 ? row.get(i).substring(0, 39) + "…" : row.get(i);
                line.append(cell).repeat(' ', widths.get(i) - cell.length() + 2);
            }
            out.println(line.toString().stripTrailing());
        }
    }
}
