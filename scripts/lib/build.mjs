// Builds Corvel unless it is built already.
import { ensureBuild } from './setup.mjs';

ensureBuild();
