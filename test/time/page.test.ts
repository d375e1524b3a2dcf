import './timer-modules';
