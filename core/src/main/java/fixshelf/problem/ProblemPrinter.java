package fixshelf.problem;

/// Prints a problem for a terminal: `file:line:col: error E102: what`, the line, marks under the span, what to do.
public final class ProblemPrinter {
    private ProblemPrinter() {}

    public static String print(Problem problem) {
        StringBuilder out = new StringBuilder();
        SourceText source = problem.where().source();
        Span span = problem.where().span();
        boolean placed = !source.text().isEmpty();
        out.append(source.name());
        if (placed) {
            SourceText.Position at = problem.where().position();
            out.append(':').append(at.line()).append(':').append(at.column());
        }
        out.append(problem.isError() ? ": error " : ": warning ")
                .append(problem.code().id());
        out.append(": ").append(problem.what()).append('\n');
        if (placed) {
            marks(out, source, span);
        }
        if (!problem.todo().isEmpty()) {
            out.append("  ").append(problem.todo()).append('\n');
        }
        return out.toString();
    }

    private static void marks(StringBuilder out, SourceText source, Span span) {
        String line = source.lineAt(span.start()).replace('\t', ' ').replace("\r", "");
        if (line.isBlank()) {
            return;
        }
        int column = source.position(span.start()).column() - 1;
        int width = Math.max(1, Math.min(span.length(), line.length() - Math.min(column, line.length())));
        out.append("    ").append(line).append('\n');
        out.append("    ").repeat(' ', column).repeat('^', width).append('\n');
    }
}
