/** What a class allows: its rules, each with a safe value to begin with. Decided from what its staff set. */
package org.vastporch.core.classes;
