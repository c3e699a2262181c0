package fixshelf.problem;

/// A stretch of text: `start` inclusive, `end` exclusive, both 0-based offsets.
public record Span(int start, int end) {
    /// Whether it lies in another, or is the same.
    public boolean isWithin(Span other) {
        return other.start() <= start && end <= other.end();
    }

    public static final Span NONE = new Span(0, 0);

    public Span {
        if (start < 0 || end < start) {
            throw new IllegalArgumentException("not a span: " + start + " to " + end);
        }
    }

    public Span shift(int by) {
        return new Span(start + by, end + by);
    }

    public Span cover(Span other) {
        return new Span(Math.min(start, other.start), Math.max(end, other.end));
    }

    public int length() {
        return end - start;
    }
}
