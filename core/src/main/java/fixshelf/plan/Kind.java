package fixshelf.plan;

import fixshelf.problem.Outcome;
import java.util.List;
import java.util.Optional;

/// The kind of a blank, which knows everything about it: what is meant by what stands on a page, how it is said in a
/// sentence, how typed words become it, what completes it, and what is wrong with it.
///
/// What is said and typed again means the same: `typed(say(w))` is `w`, or another way to write it.
///
/// @param <T> what it means
public interface Kind<T> {
    /// What it is called in a list of blanks, such as `columns`.
    String name();

    /// What is meant, where the line stands.
    Outcome<T> read(Written written, Context context);

    /// As it is said in a sentence.
    String say(Written written);

    /// What words typed into the blank would be on a page.
    Outcome<Written> typed(String text);

    /// Words that complete it.
    default List<String> choices(Choices choices) {
        return List.of();
    }

    /// Whether several words stand in it, so that each is completed.
    default boolean isList() {
        return false;
    }

    /// Whether what is written is code, in which a parameter is a bare name and braces are ordinary signs.
    default boolean isCode(Written written) {
        return false;
    }

    /// Something to begin with, when a line is added.
    Optional<Written> beginning(Choices choices);

    /// What is known where a blank is filled.
    ///
    /// @param fixes the value fixes of the shelf
    record Choices(List<fixshelf.type.Column> columns, List<String> sources, List<String> fixes) {
        public Choices(List<fixshelf.type.Column> columns, List<String> sources) {
            this(columns, sources, List.of());
        }

        public List<String> names() {
            return columns.stream().map(fixshelf.type.Column::name).toList();
        }
    }
}
