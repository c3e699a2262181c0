package fixshelf.plan;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What an author wrote in a blank, before anything is made of it: a word, a list, or fields in their order. All words
/// are text here; the kind of the blank says what they mean.
public sealed interface Written {
    record Word(String text) implements Written {}

    record Items(List<Written> items) implements Written {
        public Items {
            items = List.copyOf(items);
        }
    }

    record Fields(Map<String, Written> fields) implements Written {
        public Fields {
            fields = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(fields));
        }

        /// Two that differ in the order of their fields are not the same.
        @Override
        public boolean equals(Object other) {
            return other instanceof Fields(Map<String, Written> others)
                    && List.copyOf(fields.entrySet()).equals(List.copyOf(others.entrySet()));
        }

        @Override
        public int hashCode() {
            return fields.hashCode();
        }
    }

    static Written word(String text) {
        return new Word(text);
    }

    static Written words(List<String> texts) {
        return new Items(texts.stream().map(Written::word).toList());
    }

    static Written field(String name, Written value) {
        return new Fields(Map.of(name, value));
    }

    /// Pairs of words.
    static Written pairs(Map<String, String> pairs) {
        Map<String, Written> fields = new LinkedHashMap<>();
        pairs.forEach((k, v) -> fields.put(k, word(v)));
        return new Fields(fields);
    }

    /// The words of a list; a single word counts as a list of one. Empty when there is anything else in it.
    default Optional<List<String>> texts() {
        return switch (this) {
            case Word(String text) -> Optional.of(List.of(text));
            case Items(List<Written> items)
            when items.stream().allMatch(Word.class::isInstance) ->
                Optional.of(items.stream().map(i -> ((Word) i).text()).toList());
            case Items _, Fields _ -> Optional.empty();
        };
    }

    /// The pairs of words; empty when there is anything else in it.
    default Optional<Map<String, String>> wordPairs() {
        if (!(this instanceof Fields(Map<String, Written> fields))
                || !fields.values().stream().allMatch(Word.class::isInstance)) {
            return Optional.empty();
        }
        Map<String, String> pairs = new LinkedHashMap<>();
        fields.forEach((k, v) -> pairs.put(k, ((Word) v).text()));
        return Optional.of(pairs);
    }
}
