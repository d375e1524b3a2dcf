/* Made by `node scripts/aria.mjs` out of the package html-aria. */

const words = (text: string): ReadonlySet<string> => new Set(text.split(' '));

/**
 * Every role there is, without the abstract ones.
 *
 * @see https://www.w3.org/TR/wai-aria-1.3/#role_definitions
 */
export const knownRoles = words(
  'alert alertdialog application article banner blockquote button caption cell checkbox code columnheader combobox comment complementary contentinfo definition deletion dialog directory doc-abstract doc-acknowledgments doc-afterword doc-appendix doc-backlink doc-biblioentry doc-bibliography doc-biblioref doc-chapter doc-colophon doc-conclusion doc-cover doc-credit doc-credits doc-dedication doc-endnote doc-endnotes doc-epigraph doc-epilogue doc-errata doc-example doc-footnote doc-foreword doc-glossary doc-glossref doc-index doc-introduction doc-noteref doc-notice doc-pagebreak doc-pagefooter doc-pageheader doc-pagelist doc-part doc-preface doc-prologue doc-pullquote doc-qna doc-subtitle doc-tip doc-toc document emphasis feed figure form generic graphics-document graphics-object graphics-symbol grid gridcell group heading img insertion link list listbox listitem log main mark marquee math menu menubar menuitem menuitemcheckbox menuitemradio meter navigation note option paragraph presentation progressbar radio radiogroup region row rowgroup rowheader scrollbar search searchbox sectionfooter sectionheader separator slider spinbutton status strong subscript suggestion superscript switch tab table tablist tabpanel term textbox time timer toolbar tooltip tree treegrid treeitem',
);

/** Roles whose name comes from what they contain. @see https://www.w3.org/TR/wai-aria-1.3/#namefromcontent */
export const namedByContent = words(
  'button cell checkbox columnheader comment doc-backlink doc-biblioref doc-glossref doc-noteref doc-pagebreak doc-subtitle graphics-object gridcell heading link menuitem menuitemcheckbox menuitemradio option radio row rowheader switch tab tooltip treeitem',
);

/** Roles that may have no name. @see https://www.w3.org/TR/wai-aria-1.3/#namefromprohibited */
export const nameProhibited = words(
  'caption code definition deletion doc-pagefooter doc-pageheader emphasis generic insertion mark paragraph presentation strong subscript suggestion superscript term time',
);

/** The attributes that every element may have. @see https://www.w3.org/TR/wai-aria-1.3/#global_states */
export const globalAttributes = words(
  'aria-atomic aria-braillelabel aria-brailleroledescription aria-busy aria-controls aria-current aria-describedby aria-description aria-details aria-dropeffect aria-flowto aria-grabbed aria-keyshortcuts aria-label aria-labelledby aria-live aria-owns aria-relevant aria-roledescription',
);

/** Which roles have a state. */
export const supporting = {
  checked: words('checkbox menuitemcheckbox menuitemradio option radio switch treeitem'),
  disabled: words(
    'application button checkbox columnheader combobox grid gridcell group link listbox menu menubar menuitem menuitemcheckbox menuitemradio option radio radiogroup row rowheader scrollbar searchbox separator slider spinbutton switch tab tablist textbox toolbar tree treegrid treeitem',
  ),
  expanded: words(
    'application button checkbox columnheader combobox gridcell link listbox menuitem menuitemcheckbox menuitemradio row rowheader switch tab treeitem',
  ),
  invalid: words(
    'application checkbox columnheader combobox gridcell listbox radiogroup rowheader searchbox slider spinbutton switch textbox tree treegrid',
  ),
  pressed: words('button'),
  readonly: words(
    'checkbox columnheader combobox grid gridcell listbox radiogroup rowheader searchbox slider spinbutton switch textbox treegrid',
  ),
  required: words(
    'checkbox columnheader combobox gridcell listbox radiogroup rowheader searchbox spinbutton switch textbox tree treegrid',
  ),
  selected: words('columnheader gridcell option row rowheader tab treeitem'),
} as const;

/**
 * The role of each element by its tag, where nothing else decides.
 *
 * @see https://www.w3.org/TR/html-aam-1.0/#html-element-role-mappings
 */
export const tagRoles: Readonly<Record<string, string>> = Object.fromEntries(
  'html document,address group,article article,aside complementary,footer contentinfo,header banner,h1 heading,h2 heading,h3 heading,h4 heading,h5 heading,h6 heading,hgroup group,main main,nav navigation,section region,search search,blockquote blockquote,dd definition,dt term,figcaption caption,figure figure,hr separator,li listitem,menu list,ol list,p paragraph,ul list,a link,code code,dfn term,em emphasis,mark mark,s deletion,strong strong,sub subscript,sup superscript,time time,area link,svg graphics-document,math math,del deletion,ins insertion,caption caption,table table,tbody rowgroup,td cell,tfoot rowgroup,th columnheader,thead rowgroup,tr row,button button,datalist listbox,fieldset group,form form,input textbox,meter meter,optgroup group,option option,output status,progress progressbar,select combobox,textarea textbox,details group,dialog dialog'
    .split(',')
    .map((pair) => pair.split(' ') as [string, string]),
);
