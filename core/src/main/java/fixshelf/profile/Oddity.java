package fixshelf.profile;

/// A kind of thing that is worth looking at in a column, or in the rows of a table.
public enum Oddity {
    ERROR_CELLS("error_cells", "could not be read in the source"),
    NEVER_FILLED("never_filled", "never filled"),
    CONSTANT("constant", "always the same"),
    REPEATS("repeats", "repeat a value"),
    WORDS_FOR_MISSING("words_for_missing", "say that there is no value"),
    BLANK_TEXTS("blank_texts", "hold nothing but blanks"),
    EDGE_SPACES("edge_spaces", "with blanks at an end"),
    DOUBLED_SPACES("doubled_spaces", "with doubled spaces"),
    OTHER_SPACES("other_spaces", "with no-break or other rare spaces"),
    LINE_BREAKS("line_breaks", "with line breaks or tabs"),
    INVISIBLE("invisible", "with invisible characters"),
    WRONG_ENCODING("wrong_encoding", "look read in a wrong encoding"),
    MARKUP("markup", "with markup"),
    COMMA_IN_NUMBERS("comma_in_numbers", "hold a comma"),
    MARKS_IN_NUMBERS("marks_in_numbers", "are numbers with marks"),
    UNITS("units", "end in a unit"),
    NO_NUMBER("no_number", "are no number"),
    LEADING_ZEROS("leading_zeros", "begin with a zero"),
    SERIAL_DAYS("serial_days", "look like days of a spreadsheet"),
    SERIALS("serials", "count days as a spreadsheet does"),
    LAYOUTS("layouts", "are laid out otherwise"),
    NO_DAY("no_day", "are no day"),
    MIXED("mixed", "are of another type than most"),
    UNLIKE("unlike", "are unlike the others"),
    SPELLINGS("spellings", "spell another value otherwise"),
    NEAR("near", "are one letter from a common value"),
    NOT_ON_LIST("not_on_list", "are not on a list"),
    EMPTY_PARTS("empty_parts", "with empty parts"),
    TOTALS("totals", "look like totals"),
    RULERS("rulers", "are ruled lines"),
    BLANK_ROWS("blank_rows", "are blank"),
    HEADING_AGAIN("heading_again", "repeat the heading"),
    SHIFTED("shifted", "begin further right"),
    NAMES_BELOW("names_below", "may hold the names of columns");

    private final String id;
    private final String words;

    Oddity(String id, String words) {
        this.id = id;
        this.words = words;
    }

    /// Its name in JSON and on the command line.
    public String id() {
        return id;
    }

    /// What is said of the values, after their number.
    public String words() {
        return words;
    }

    /// Whether it is said of a column as a whole, without a number.
    public boolean isOfWholeColumn() {
        return this == NEVER_FILLED || this == CONSTANT || this == SERIAL_DAYS;
    }

    /// Whether it can be told from a value alone, so that a value is rid of it or not.
    boolean isOfCharacters() {
        return switch (this) {
            case BLANK_TEXTS,
                    EDGE_SPACES,
                    DOUBLED_SPACES,
                    OTHER_SPACES,
                    LINE_BREAKS,
                    INVISIBLE,
                    WRONG_ENCODING,
                    MARKUP -> true;
            default -> false;
        };
    }
}
