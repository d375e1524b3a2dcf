/** @jest-environment node */
import './timer-modules';
