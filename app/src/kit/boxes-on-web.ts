import byRole from 'react-native-web/dist/modules/AccessibilityUtil/propsToAccessibilityComponent';

/**
 * Elements that may hold little (HTML, "Content models"): a button only words, a list only its items. What is drawn here
 * holds boxes, so it is a box with that role, and no element of that name.
 */
const boxes = new Set(['button', 'ul', 'li', 'p']);

/** Which element something is drawn as on the web, by its role; undefined: a box. */
const elementFor: typeof byRole = (props) => {
  const element = byRole(props);
  return element !== undefined && boxes.has(element) ? undefined : element;
};

export default elementFor;
