import { defineComponent, h } from 'vue'

/** The one place that shows HTML as it is: what the server has sanitised. */
export default defineComponent({
  name: 'SanitisedHtml',
  props: { html: { type: String, required: true }, tag: { type: String, default: 'div' } },
  setup: props => () => h(props.tag, { innerHTML: props.html }),
})
