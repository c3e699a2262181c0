package fixshelf.shelf;

import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// The text of a page after an edit of its front matter or its title; everything else stays as it is written.
final class FrontEdits {
    private FrontEdits() {}

    /// The text with another title.
    static String setTitle(SourceText source, String title) {
        return PageText.of(source)
                .titleSpan()
                .map(span -> splice(source.text(), span, "# " + title.strip()))
                .orElse(source.text());
    }

    /// The text with a field of the front matter set; `value` is YAML.
    static String setField(SourceText source, String field, String value) {
        Span front = PageText.of(source).front().orElse(new Span(0, 0));
        String text = source.text();
        List<String> lines = text.substring(front.start(), front.end()).lines().toList();
        boolean known = lines.stream().anyMatch(l -> l.startsWith(field + ":"));
        String entry = field + ": " + value;
        Stream<String> changed =
                known ? replaced(lines, field, entry) : Stream.concat(lines.stream(), Stream.of(entry));
        return splice(text, front, changed.map(l -> l + "\n").collect(Collectors.joining()));
    }

    /// A page that is all fields, with one of them set; `value` is YAML.
    static String setTopField(String text, String field, String value) {
        List<String> lines = text.lines().toList();
        boolean known = lines.stream().anyMatch(l -> l.startsWith(field + ":"));
        String entry = field + ":" + (value.startsWith("\n") ? "" : " ") + value;
        Stream<String> changed = known ? replaced(lines, field, entry) : Stream.concat(lines.stream(), entry.lines());
        String end = text.contains("\r\n") ? "\r\n" : "\n";
        return changed.map(l -> l + end).collect(Collectors.joining());
    }

    private static Stream<String> replaced(List<String> lines, String field, String entry) {
        int at = 0;
        while (!lines.get(at).startsWith(field + ":")) {
            at++;
        }
        // Blank lines and comments between what is indented belong to the field, those behind it do not.
        int end = at + 1;
        for (int i = end; i < lines.size(); i++) {
            String line = lines.get(i);
            if (line.startsWith(" ") || line.startsWith("- ") || line.equals("-")) {
                end = line.isBlank() ? end : i + 1;
            } else if (!line.isBlank() && !line.startsWith("#")) {
                break;
            }
        }
        return Stream.of(lines.subList(0, at).stream(), entry.lines(), lines.subList(end, lines.size()).stream())
                .flatMap(s -> s);
    }

    /// The text with the parameters said anew.
    ///
    /// @param fallback what is written for the value of one that is left out, as YAML
    static String setParameters(
            SourceText source,
            List<FixEdits.ParameterText> parameters,
            Function<FixEdits.ParameterText, String> fallback) {
        String value = parameters.stream()
                .map(p -> "\n  " + p.name() + ": {type: " + YamlText.scalar(p.type())
                        + (p.fallback().isBlank() ? "" : ", default: " + fallback.apply(p))
                        + ", about: " + YamlText.scalar(p.about()) + "}")
                .collect(Collectors.joining());
        return setField(source, "parameters", parameters.isEmpty() ? "{}" : value)
                .replace("parameters: \n", "parameters:\n");
    }

    static String splice(String text, Span span, String inside) {
        return text.substring(0, span.start()) + inside + text.substring(span.end());
    }
}
