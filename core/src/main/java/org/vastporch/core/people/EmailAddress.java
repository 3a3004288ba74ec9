package org.vastporch.core.people;

/** What counts as an e-mail address here: something, an at sign, and a name with a dot in it, without blanks. */
public final class EmailAddress {

    private static final int LONGEST = 254;

    private EmailAddress() {}

    public static boolean isValid(String text) {
        return text.length() <= LONGEST && text.matches("[^@\\s<>]+@[^@\\s<>]+\\.[^@\\s.<>]{2,}");
    }
}
