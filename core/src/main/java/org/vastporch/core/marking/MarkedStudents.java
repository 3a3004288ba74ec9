package org.vastporch.core.marking;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Folding;

/** Finds whose marks a row of a table gives. A mark that goes to somebody else is worse than one that goes nowhere. */
public final class MarkedStudents {

    /** Somebody whose paper can be marked. */
    public record Student(long id, String name, String username, String schoolNo, String email) {}

    /** By what a row tells its student; empty for what it does not give. */
    record Signs(String name, String username, String schoolNo, String email) {

        /** The first of them that is given. */
        String called() {
            for (String sign : List.of(name, username, schoolNo, email)) if (!sign.isEmpty()) return sign;
            return "";
        }
    }

    private final List<Student> students;

    MarkedStudents(List<Student> students) {
        this.students = List.copyOf(students);
    }

    /**
     * Whoever all the signs tell.
     *
     * @param problems to it is added, in words, why it cannot be told who that is
     * @return null if it cannot
     */
    @Nullable
    Long tell(Signs signs, List<String> problems) {
        Set<Long> left = null;
        left = narrowed(left, signs.username(), Student::username, Folding::fold, problems);
        left = narrowed(left, signs.schoolNo(), Student::schoolNo, Folding::fold, problems);
        left = narrowed(left, signs.email(), Student::email, Folding::fold, problems);
        left = narrowed(left, signs.name(), Student::name, MarkedStudents::wordsOf, problems);
        if (left == null) {
            problems.add("This row does not say whose marks these are.");
            return null;
        }
        if (left.isEmpty()) {
            if (problems.isEmpty()) problems.add("This row names two different students.");
            return null;
        }
        if (left.size() > 1) {
            problems.add("Several students here are called “" + MarksTable.shortened(signs.called())
                    + "”. Give the username or the school number as well.");
            return null;
        }
        return left.iterator().next();
    }

    /**
     * @param before those who are left; null while nothing has been told
     * @param same what is alike in two ways of writing the same
     */
    private @Nullable Set<Long> narrowed(
            @Nullable Set<Long> before,
            String told,
            Function<Student, String> of,
            UnaryOperator<String> same,
            List<String> problems) {
        if (told.isEmpty()) return before;
        Set<Long> found = students.stream()
                .filter(s -> !of.apply(s).isEmpty() && same.apply(of.apply(s)).equals(same.apply(told)))
                .map(Student::id)
                .collect(Collectors.toCollection(TreeSet::new));
        if (found.isEmpty()) problems.add("Nobody here is “" + MarksTable.shortened(told) + "”.");
        if (before != null) found.retainAll(before);
        return found;
    }

    /** The words of a name in one order, so that it does not matter which stands first. */
    private static String wordsOf(String name) {
        return Arrays.stream(Folding.fold(name).split("[^\\p{L}\\p{N}'’-]+"))
                .filter(w -> !w.isEmpty())
                .sorted()
                .collect(Collectors.joining(" "));
    }
}
