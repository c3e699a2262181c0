package fixshelf.profile;

import java.util.ArrayList;
import java.util.List;

/// What a column is, and what is odd about it.
///
/// @param index its place in the table, from 0
/// @param readsAs the type that its values read as, in words
/// @param rows all rows of the table
/// @param filled rows with a value that is neither empty nor only blanks
/// @param missing rows without a value
/// @param errors rows of these whose cell could not be read in the source
/// @param empty rows with the empty text
/// @param blank rows with nothing but blanks
/// @param distinct how many values differ, the empty text and blank ones among them
/// @param shortest the length of the shortest value in characters (code points); 0 where there is none
/// @param longest the length of the longest value
/// @param least the least value as it is written: of the numbers or days where it reads as such, else by characters
/// @param greatest the greatest value
/// @param commonest the values that most rows hold, with how many
/// @param bins how many rows fall into each of equal parts between the least and the greatest; none for texts
/// @param filledByPlace how many rows are filled in each of equal parts of the table, from its top
/// @param digest a number made of all values, whatever their order; another one where any value is another
/// @param findings what is odd
public record ColumnLook(
        int index,
        String name,
        String readsAs,
        long rows,
        long filled,
        long missing,
        long errors,
        long empty,
        long blank,
        long distinct,
        int shortest,
        int longest,
        String least,
        String greatest,
        List<Common> commonest,
        List<Long> bins,
        List<Long> filledByPlace,
        long digest,
        List<Finding> findings) {
    public ColumnLook {
        commonest = List.copyOf(commonest);
        bins = List.copyOf(bins);
        filledByPlace = List.copyOf(filledByPlace);
        findings = List.copyOf(findings);
    }

    /// A value with how many rows hold it.
    public record Common(String value, long rows) {}

    /// Whether its values read as numbers or days, so that least and greatest say more than the commonest do.
    public boolean isMeasured() {
        return !bins.isEmpty();
    }

    ColumnLook with(Finding finding) {
        List<Finding> all = new ArrayList<>(findings);
        all.add(finding);
        return with(errors, all);
    }

    /// The same, with cells that could not be read.
    ColumnLook withErrors(Finding finding) {
        List<Finding> all = new ArrayList<>(List.of(finding));
        all.addAll(findings);
        return with(finding.rows(), all);
    }

    private ColumnLook with(long nowErrors, List<Finding> all) {
        return new ColumnLook(
                index,
                name,
                readsAs,
                rows,
                filled,
                missing,
                nowErrors,
                empty,
                blank,
                distinct,
                shortest,
                longest,
                least,
                greatest,
                commonest,
                bins,
                filledByPlace,
                digest,
                all);
    }
}
