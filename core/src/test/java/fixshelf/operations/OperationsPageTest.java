package fixshelf.operations;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Blank;
import fixshelf.plan.Operation;
import fixshelf.plan.TableExample;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/// `docs/operations.md` is made from the catalogue, so that it says what is true. `mvn test -Dformat=write` writes it.
class OperationsPageTest {
    private static final Path PAGE = Path.of("../docs/operations.md");

    @Test
    void thePageSaysWhatTheCatalogueSays() throws IOException {
        String page = page();
        if ("write".equals(System.getProperty("format"))) {
            Files.writeString(PAGE, page);
        }
        assertThat(PAGE).as("run mvn test -Dformat=write").hasContent(page);
    }

    private static String page() {
        StringBuilder out = new StringBuilder("""
                # Operations

                What a line of a job can do with a table. Made from the catalogue; each example is run in every language with
                every build. The same in the terminal: `fixshelf operations`, and `fixshelf operations NAME`.

                A line calls an operation by its name, with what stands in its first blank behind it and the other blanks below.
                Every line may also have a `reason`, `strict: true` where values can be lost, and `rest: true`, which leaves it
                out for now.
                """);
        for (Operation operation : Operations.ALL) {
            out.append("\n## ")
                    .append(operation.name())
                    .append("\n\n*")
                    .append(operation.sentence())
                    .append("*\n\n");
            out.append(operation.about().purpose()).append("\n\n| blank | is | |\n|---|---|---|\n");
            operation.blanks().forEach(b -> out.append(row(b)));
            out.append('\n');
            operation.about().answers().forEach((question, answer) -> out.append("- **")
                    .append(question)
                    .append("**: ")
                    .append(answer)
                    .append('\n'));
            operation.examples().forEach(e -> out.append(example(e)));
        }
        return out.toString();
    }

    private static <T> String row(Blank<T> blank) {
        String usual = blank.fallback()
                .map(f -> "usually `" + blank.kind().say(f) + "`")
                .orElse(blank.needed() ? "needed" : "may be left out");
        return "| `" + blank.name() + "` | " + blank.kind().name() + ", " + usual + " | " + blank.about() + " |\n";
    }

    private static String example(TableExample example) {
        StringBuilder out = new StringBuilder("\n" + example.title() + ":\n\n```yaml\n");
        out.append("- ").append(example.call().replace("\n", "\n  ")).append("\n```\n\n");
        out.append(table(example.given()));
        example.others()
                .forEach((name, table) ->
                        out.append("\nwith `").append(name).append("`\n\n").append(table(table)));
        return out.append("\ngives\n\n").append(table(example.gives())).toString();
    }

    private static String table(TableExample.Table table) {
        String rule = "|" + "---|".repeat(table.heading().size()) + "\n";
        return row(table.heading())
                + rule
                + table.rows().stream().map(OperationsPageTest::row).collect(Collectors.joining());
    }

    private static String row(List<String> cells) {
        return cells.stream().map(c -> c.replace("|", "\\|")).collect(Collectors.joining(" | ", "| ", " |\n"));
    }
}
