package fixshelf.language.tree;

import java.util.List;

/// What a value fix computes: named intermediate values in order, then the result.
public record Body(List<Assignment> assignments, Expr result) {
    public Body {
        assignments = List.copyOf(assignments);
    }

    /// `SET name = value`.
    public record Assignment(String name, Expr value) {}
}
