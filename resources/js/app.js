import './bootstrap';
