package org.vastporch.server;

/**
 * A secret with a token that stands nowhere else.
 *
 * @param kind as the table calls it
 */
record Canary(String kind, String token) {}
