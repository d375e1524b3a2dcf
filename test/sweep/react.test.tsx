import 'simulacra/jest';
import type { ComponentType, ReactNode } from 'react';
import { isolate, stub } from 'simulacra/react';
import * as Mui from '@mui/material';
import * as Bootstrap from 'react-bootstrap';
import { sweep, type Piece } from './sweep';

type Loose = ComponentType<Record<string, unknown>>;

const piece = (
  name: string,
  of: unknown,
  props: Record<string, unknown> & { children?: ReactNode },
): Piece => {
  const component = of as Loose;
  const Component = component;
  const Parent = () => <Component {...props} />;
  return {
    name,
    component,
    alone: (options) => isolate(component, { props, ...options }),
    // What is inside of some needs the real one.
    stubbed: () => isolate(Parent, { stub: [name === 'Tabs' ? stub(component, () => <i />) : component] }),
  };
};

sweep('Material UI', [
  piece('Accordion', Mui.Accordion, {
    children: [<Mui.AccordionSummary key="a">Anemone</Mui.AccordionSummary>, <p key="b">31.2 kg</p>],
  }),
  piece('Alert', Mui.Alert, { severity: 'warning', children: 'Frost tonight' }),
  piece('Pagination', Mui.Pagination, { count: 5 }),
  piece('Breadcrumbs', Mui.Breadcrumbs, {
    children: [
      <a key="a" href="/">
        Yard
      </a>,
      <b key="b">Anemone</b>,
    ],
  }),
  piece('Checkbox', Mui.Checkbox, { defaultChecked: true }),
  piece('Dialog', Mui.Dialog, { open: true, children: <p>Log it?</p> }),
  piece('Rating', Mui.Rating, { name: 'calm', defaultValue: 3 }),
  piece('Slider', Mui.Slider, { defaultValue: 4, 'aria-label': 'Frames' }),
  piece('Tabs', Mui.Tabs, { value: 0, children: <Mui.Tab label="Frames" /> }),
  piece('TextField', Mui.TextField, { label: 'Varroa', defaultValue: '3' }),
]);

sweep('React Bootstrap', [
  piece('Accordion', Bootstrap.Accordion, {
    children: (
      <Bootstrap.Accordion.Item eventKey="a">
        <Bootstrap.Accordion.Header>Anemone</Bootstrap.Accordion.Header>
      </Bootstrap.Accordion.Item>
    ),
  }),
  piece('Alert', Bootstrap.Alert, { children: 'Frost tonight' }),
  piece('Breadcrumb', Bootstrap.Breadcrumb, { children: 'Yard' }),
  piece('Button', Bootstrap.Button, { children: 'Log' }),
  piece('Dropdown', Bootstrap.Dropdown, {
    children: <Bootstrap.Dropdown.Toggle>More</Bootstrap.Dropdown.Toggle>,
  }),
  piece('FormCheck', Bootstrap.FormCheck, { label: 'Marked', id: 'marked' }),
  piece('Modal', Bootstrap.Modal, { show: true, children: 'Log it?' }),
  piece('Nav', Bootstrap.Nav, { children: <Bootstrap.Nav.Link href="/">Yard</Bootstrap.Nav.Link> }),
  piece('Pagination', Bootstrap.Pagination, {
    children: <Bootstrap.Pagination.Item>1</Bootstrap.Pagination.Item>,
  }),
  piece('Tabs', Bootstrap.Tabs, {
    id: 'tabs',
    children: (
      <Bootstrap.Tab eventKey="frames" title="Frames">
        Ten
      </Bootstrap.Tab>
    ),
  }),
]);
