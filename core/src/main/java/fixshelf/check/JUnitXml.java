package fixshelf.check;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// Results of cases and promises as JUnit XML, which every build server reads.
public final class JUnitXml {
    private JUnitXml() {}

    /// One test: the fix and language it belongs to, its name, and what is wrong, empty when it holds.
    public record Test(String suite, String name, String failure) {}

    public static String print(List<Test> tests) {
        StringBuilder out = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<testsuites>\n");
        Map<String, List<Test>> suites = tests.stream()
                .collect(Collectors.groupingBy(Test::suite, java.util.LinkedHashMap::new, Collectors.toList()));
        suites.forEach((suite, cases) -> {
            long failures = cases.stream().filter(t -> !t.failure().isEmpty()).count();
            out.append("  <testsuite name=\"")
                    .append(escape(suite))
                    .append("\" tests=\"")
                    .append(cases.size());
            out.append("\" failures=\"").append(failures).append("\">\n");
            cases.forEach(t -> out.append(print(t)));
            out.append("  </testsuite>\n");
        });
        return out.append("</testsuites>\n").toString();
    }

    private static String print(Test test) {
        String open = "    <testcase classname=\"" + escape(test.suite()) + "\" name=\"" + escape(test.name()) + "\"";
        return test.failure().isEmpty()
                ? open + "/>\n"
                : open + "><failure message=\"" + escape(test.failure()) + "\"/></testcase>\n";
    }

    /// Whether XML can hold the character, and keeps it in an attribute.
    private static boolean isPlain(int c) {
        return c >= 0x20 && (c < 0xD800 || c > 0xDFFF) && c != 0xFFFE && c != 0xFFFF;
    }

    private static String escape(String text) {
        StringBuilder out = new StringBuilder();
        text.codePoints().forEach(c -> {
            switch (c) {
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '&' -> out.append("&amp;");
                case '"' -> out.append("&quot;");
                default -> out.append(isPlain(c) ? Character.toString(c) : "?");
            }
        });
        return out.toString();
    }
}
