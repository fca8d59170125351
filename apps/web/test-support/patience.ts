import { configure } from '@testing-library/react';

// a slow machine is no fault
configure({ asyncUtilTimeout: 30_000 });
