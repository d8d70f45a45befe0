/**
 * Sentences compiled while the front end is built. Lingui's macro leaves each as
 * text in the notation of ICU, to be read when it is said; Lingui's own compiler
 * reads it here instead, so that the browser needs no reader.
 */
import type { NodePath, PluginObj, types } from '@babel/core';
import { compileMessage } from '@lingui/message-utils/compileMessage';

type T = typeof types;

export function compiled({ types: t }: { types: T }): PluginObj {
  const read = (text: string) => t.valueToNode(compileMessage(text));
  return {
    name: 'compiled-sentences',
    visitor: {
      Program: {
        exit(program: NodePath<types.Program>) {
          program.traverse({
            ObjectProperty({ node }) {
              if (t.isIdentifier(node.key, { name: 'message' }) && t.isStringLiteral(node.value))
                node.value = read(node.value.value);
            },
            JSXAttribute({ node, parent }) {
              const of =
                t.isJSXOpeningElement(parent) && t.isJSXIdentifier(parent.name) ? parent.name.name : '';
              if (!of.startsWith('_Trans') || !t.isJSXIdentifier(node.name, { name: 'message' })) return;
              const text = t.isJSXExpressionContainer(node.value) ? node.value.expression : node.value;
              if (t.isStringLiteral(text)) node.value = t.jsxExpressionContainer(read(text.value));
            },
          });
        },
      },
    },
  };
}
