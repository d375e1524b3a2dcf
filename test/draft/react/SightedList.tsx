import { Component, createRef } from 'react';

export class SightedList extends Component<{ title: string }, { seen: boolean }> {
  override state = { seen: false };
  #end = createRef<HTMLDivElement>();
  #observer: IntersectionObserver | undefined;
  override componentDidMount() {
    this.#observer = new IntersectionObserver(([entry]) => this.setState({ seen: entry!.isIntersecting }));
    this.#observer.observe(this.#end.current!);
  }
  override componentWillUnmount() {
    this.#observer?.disconnect();
  }
  override render() {
    return (
      <section>
        <h3>{this.props.title}</h3>
        <div ref={this.#end}>{this.state.seen ? 'All of it was seen' : 'There is more below'}</div>
      </section>
    );
  }
}
