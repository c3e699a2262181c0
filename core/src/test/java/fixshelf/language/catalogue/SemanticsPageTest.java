package fixshelf.language.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.tree.FunctionDef;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/// The chapter on functions in `docs/semantics.md` is what the catalogue says. `-Dsemantics=write` writes it anew.
class SemanticsPageTest {
    private static final Path PAGE = Path.of("../docs/semantics.md");
    private static final String MARK = "<!-- From here on made from the catalogue; see SemanticsPageTest. -->\n";

    @Test
    void thePageSaysWhatTheCatalogueSays() throws Exception {
        String page = Files.readString(PAGE);
        String written = page.substring(0, page.indexOf(MARK) + MARK.length()) + functions();
        if ("write".equals(System.getProperty("semantics"))) {
            Files.writeString(PAGE, written);
        }
        assertThat(Files.readString(PAGE)).as("run with -Dsemantics=write").isEqualTo(written);
    }

    private static String functions() {
        StringBuilder out = new StringBuilder();
        for (FunctionDef.Group group : FunctionDef.Group.values()) {
            out.append("\n## ").append(group.title()).append('\n');
            Functions.ALL.stream().filter(f -> f.group() == group).forEach(f -> out.append(function(f)));
        }
        return out.toString();
    }

    private static String function(FunctionDef function) {
        StringBuilder out = new StringBuilder("\n### `");
        out.append(function.isOperator() ? function.name() : function.signature())
                .append("`\n\n");
        if (!function.aliases().isEmpty()) {
            out.append("Also `").append(String.join("`, `", function.aliases())).append("`. ");
        }
        out.append(function.about());
        out.append(function.nulls() == FunctionDef.Nulls.IF_ANY ? " Null when any argument is.\n\n" : "\n\n");
        out.append("| call | result |\n|---|---|\n");
        function.examples().forEach(e -> out.append("| `")
                .append(cell(e.call()))
                .append("` | `")
                .append(cell(e.result()))
                .append("` |\n"));
        return out.toString();
    }

    private static String cell(String text) {
        return text.replace("|", "\\|");
    }
}
