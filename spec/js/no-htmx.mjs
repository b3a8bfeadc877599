export default { registerExtension() {} };
