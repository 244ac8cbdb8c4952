/// <reference types="w3c-web-serial" />
