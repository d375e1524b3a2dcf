import { createElement } from 'react';
import { height, phase } from '../tides';

const taken = phase;

export const Shore = () => createElement('p', null, `${taken} ${height}`);
