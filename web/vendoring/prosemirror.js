// What of ProseMirror ships: bin/vendor makes one module of it.
export { DOMParser, DOMSerializer, Fragment, MarkType, Node, Schema, Slice } from 'prosemirror-model';
export { EditorState, Plugin, TextSelection, AllSelection, Selection } from 'prosemirror-state';
export { EditorView } from 'prosemirror-view';
export { baseKeymap, chainCommands, lift, setBlockType, toggleMark, wrapIn } from 'prosemirror-commands';
export { keymap } from 'prosemirror-keymap';
export { history, redo, undo } from 'prosemirror-history';
export { InputRule, inputRules, textblockTypeInputRule, wrappingInputRule } from 'prosemirror-inputrules';
export { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list';
export { MarkdownParser } from 'prosemirror-markdown';
export { default as MarkdownIt } from 'markdown-it';
