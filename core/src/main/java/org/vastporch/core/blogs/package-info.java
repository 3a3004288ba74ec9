/**
 * What a blog is: its kind and how far that reaches, its rules, its looks, its address and its title.
 *
 * <p>Decided from values that its staff set. Laws: a blog reaches no further than its kind and its class; an address is
 * never given twice; a title with a name in it fits whatever the name.
 */
package org.vastporch.core.blogs;
